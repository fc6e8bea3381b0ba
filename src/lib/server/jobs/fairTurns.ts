/** One thing at a time, and a turn for everybody: who brings twenty files does not hold up who brings one. */
interface Waiting {
  readonly begin: () => Promise<void>;
  readonly giveUp: (problem: Error) => void;
}

export class FairTurns {
  /** By whoever waits; the order of the map is the order of turns. */
  private readonly waiting = new Map<string, Waiting[]>();
  private busy = false;

  /** Gives what `work` gives, once it was `who`'s turn. */
  take<T>(who: string, work: () => Promise<T>): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      const begin = () => work().then(resolve, reject);
      this.waiting.set(who, [...(this.waiting.get(who) ?? []), { begin, giveUp: reject }]);
      void this.next();
    });
  }

  /** Whoever still waits is told. */
  close(problem: Error): void {
    const left = [...this.waiting.values()].flat();
    this.waiting.clear();
    for (const { giveUp } of left) giveUp(problem);
  }

  private async next(): Promise<void> {
    const turn = this.waiting.entries().next().value;
    if (this.busy || !turn) return;
    const [who, [first, ...rest]] = turn;
    this.waiting.delete(who);
    if (rest.length > 0) this.waiting.set(who, rest);
    this.busy = true;
    await first!.begin();
    this.busy = false;
    void this.next();
  }
}
