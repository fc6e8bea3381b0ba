/** Whole numbers by whole numbers, up to the largest exact ones: a map that makes no objects. */
const FREE = -1;

export class NumberMap {
  private keys = new Float64Array(64).fill(FREE);
  private values = new Int32Array(64);
  private size = 0;

  /** The value of a key from 0 on; undefined where there is none. */
  get(key: number): number | undefined {
    const cell = this.cellOf(key);
    return this.keys[cell] === key ? this.values[cell] : undefined;
  }

  set(key: number, value: number): void {
    if (2 * (this.size + 1) > this.keys.length) this.grow();
    const cell = this.cellOf(key);
    if (this.keys[cell] !== key) this.size++;
    this.keys[cell] = key;
    this.values[cell] = value;
  }

  /** Open addressing: the first cell from where the key belongs that has it, or is free. */
  private cellOf(key: number): number {
    const { keys } = this;
    const last = keys.length - 1;
    const high = Math.floor(key / 0x100000000);
    let cell = (Math.imul(key ^ Math.imul(high, 0x9e3779b1), 0x85ebca6b) >>> 7) & last;
    while (keys[cell] !== key && keys[cell] !== FREE) cell = (cell + 1) & last;
    return cell;
  }

  private grow(): void {
    const [keys, values] = [this.keys, this.values];
    this.keys = new Float64Array(2 * keys.length).fill(FREE);
    this.values = new Int32Array(2 * keys.length);
    keys.forEach((key, k) => {
      if (key === FREE) return;
      const cell = this.cellOf(key);
      this.keys[cell] = key;
      this.values[cell] = values[k]!;
    });
  }
}
