/**
 * Typed arrays cut from large blocks. A plan keeps some ten thousand short ones for as long as it lives; asking
 * for the memory of each by itself, and giving it back, would cost more than all the planning.
 */
const LARGEST_BLOCK_BYTES = 1 << 20;
const FIRST_BLOCK_BYTES = 1 << 14;

export class Arena {
  private block = new ArrayBuffer(0);
  private used = 0;
  /** Each block is twice as large as the one before, so that a little does not take much. */
  private nextBytes = FIRST_BLOCK_BYTES;

  int32(length: number): Int32Array {
    return new Int32Array(this.room(4 * length), this.used - 4 * length, length);
  }

  int16(length: number): Int16Array {
    const bytes = even(2 * length);
    return new Int16Array(this.room(bytes), this.used - bytes, length);
  }

  float64(length: number): Float64Array {
    // Numbers of eight bytes start at multiples of eight.
    this.used = (this.used + 7) & ~7;
    return new Float64Array(this.room(8 * length), this.used - 8 * length, length);
  }

  uint16(length: number): Uint16Array {
    const bytes = even(2 * length);
    return new Uint16Array(this.room(bytes), this.used - bytes, length);
  }

  uint8(length: number): Uint8Array {
    const bytes = even(length);
    return new Uint8Array(this.room(bytes), this.used - bytes, length);
  }

  /** The block that holds the next `bytes`, which end at `used`. */
  private room(bytes: number): ArrayBuffer {
    if (this.used + bytes > this.block.byteLength) {
      this.block = new ArrayBuffer(Math.max(this.nextBytes, bytes));
      this.nextBytes = Math.min(LARGEST_BLOCK_BYTES, 2 * this.nextBytes);
      this.used = 0;
    }
    this.used += bytes;
    return this.block;
  }
}

/** Everything starts where a number of four bytes may start. */
const even = (bytes: number) => (bytes + 3) & ~3;
