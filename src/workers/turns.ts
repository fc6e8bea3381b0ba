/** One job at a time; between two of them whoever asks is heard. Jobs that a newer one has made pointless are skipped. */
interface Job {
  readonly kind: string;
  /** Newer jobs end it: of its own kind, or such as change everything. */
  readonly skippable: boolean;
  readonly run: () => void;
  readonly skip: () => void;
}

export class Turns {
  private readonly waiting: Job[] = [];

  /** @param endsAll kinds of jobs after which what was asked before is of no use */
  constructor(private readonly endsAll: ReadonlySet<string>) {}

  /** The answer, or null where a newer job came first. Rejects with what `work` throws. */
  take<T>(kind: string, work: () => T, skippable = true): Promise<T | null> {
    return new Promise((resolve, reject) => {
      const run = () => {
        try {
          resolve(work());
        } catch (error) {
          reject(error instanceof Error ? error : new Error(String(error)));
        }
      };
      if (this.waiting.length === 0) setTimeout(() => this.next(), 0);
      this.waiting.push({ kind, skippable, run, skip: () => resolve(null) });
    });
  }

  get isIdle(): boolean {
    return this.waiting.length === 0;
  }

  private next(): void {
    const job = this.waiting.shift();
    if (job && this.isOutdated(job)) job.skip();
    else job?.run();
    if (this.waiting.length > 0) setTimeout(() => this.next(), 0);
  }

  private isOutdated = ({ kind, skippable }: Job): boolean =>
    skippable && this.waiting.some((later) => later.kind === kind || this.endsAll.has(later.kind));
}
