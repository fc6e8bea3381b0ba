/**
 * Saving: gestures go into the browser's store first and to the server as soon as it answers. What the server
 * has acknowledged is committed there; everything else is sent again, also after the tab was closed.
 */
import { type Gesture, replay } from '$core/fingering/edition/operation';
import { NO_REGISTERS, type Registers } from '$core/fingering/edition/registers';
import { appendAnswerSchema, type AppendReply, type AppendRequest } from '$lib/appendProtocol';
import { reach } from '../reach.svelte';
import { forgetUnsent, keepUnsent, listUnsent } from './unsent';

export type SaveState =
  | { readonly kind: 'saved'; readonly at: Date | null }
  | { readonly kind: 'saving' }
  | { readonly kind: 'waiting'; readonly count: number }
  | { readonly kind: 'signedOut'; readonly count: number };

const RETRY_MS = 3000;
const MOST_AT_ONCE = 500;
/** Bad request, too large, unprocessable: asked again the answer is the same. */
const REFUSED = new Set([400, 413, 422]);

/** Why gestures were not kept: something else stands there now, or the server cannot read them. */
type Refused = 'overtaken' | 'unreadable';

export class Saver {
  state = $state<SaveState>({ kind: 'saved', at: null });
  /** What the edition was before `confirmed`. */
  private base: Registers;
  private confirmed: Gesture[];
  private seenSeq: number;
  private unsent: Gesture[] = [];
  /** One while a gesture is looked for that the server will not take. */
  private mostAtOnce = MOST_AT_ONCE;
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private closed = false;
  /** The newest gesture that the server has told of. */
  private toldSeq = 0;
  private changes: EventSource | null = null;

  constructor(
    private readonly editionId: string,
    stored: { readonly base: Registers; readonly history: readonly Gesture[]; readonly headSeq: number },
    /** Told when gestures from elsewhere changed the edition, with those of one's own that no longer fit. */
    private readonly onRebase: (registers: Registers, refused: readonly Gesture[], why: Refused) => void,
  ) {
    this.base = stored.base;
    this.confirmed = [...stored.history];
    this.seenSeq = stored.headSeq;
  }

  /** The state of the history and of what an earlier visit could not send. */
  async open(): Promise<Registers> {
    this.unsent = [...(await listUnsent(this.editionId))];
    const { registers, refused } = replay([...this.confirmed, ...this.unsent], this.base);
    await this.drop(refused);
    if (this.unsent.length > 0) void this.flush();
    this.follow();
    return registers;
  }

  /** Hears of what is done elsewhere; the browser asks again by itself when the line is lost. */
  private follow(): void {
    if (this.closed || typeof EventSource === 'undefined') return;
    this.changes = new EventSource(`/api/editions/${this.editionId}/changes`);
    this.changes.onmessage = ({ data }: MessageEvent<string>) => {
      this.toldSeq = Math.max(this.toldSeq, Number(data) || 0);
      // A desk that has something to send is told in the answer.
      if (this.toldSeq > this.seenSeq && this.unsent.length === 0) void this.flush();
    };
  }

  async add(gesture: Gesture): Promise<void> {
    this.unsent.push(gesture);
    this.state = { kind: 'saving' };
    await keepUnsent(this.editionId, gesture);
    await this.flush();
  }

  get unsentCount(): number {
    return this.unsent.length;
  }

  close(): void {
    this.closed = true;
    reach.waiting = 0;
    if (this.timer) clearTimeout(this.timer);
    this.changes?.close();
  }

  async flush(): Promise<void> {
    if (this.sending || this.closed) return;
    this.sending = true;
    const wrote = this.unsent.length > 0 || this.state.kind !== 'saved';
    try {
      while (this.unsent.length > 0 || this.toldSeq > this.seenSeq) {
        const batch = this.unsent.slice(0, this.mostAtOnce);
        const reply = await this.send({ seenSeq: this.seenSeq, gestures: batch });
        if (!reply) return this.retryLater();
        reach.waiting = 0;
        // Asked with nothing to send: there is no more than this desk knows.
        if (batch.length === 0 && reply !== 'refused' && reply.kind === 'saved') this.toldSeq = this.seenSeq;
        if (reply === 'refused') await this.refuse(batch);
        else if (reply.kind === 'saved') await this.confirm(batch, reply.headSeq);
        else if (reply.kind === 'behind') await this.rebase(reply);
        else await this.restore(reply);
      }
      if (wrote) this.state = { kind: 'saved', at: new Date() };
    } finally {
      this.sending = false;
    }
  }

  /** Null when there was no usable answer: the gestures stay where they are. `refused`: it will never take them. */
  private async send(request: AppendRequest): Promise<AppendReply | 'refused' | null> {
    try {
      const response = await fetch(`/api/editions/${this.editionId}/gestures`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(request),
      });
      if (response.status === 401) this.state = { kind: 'signedOut', count: this.unsent.length };
      // What cannot be read will not be read the next time, either: it must not hold up all that comes after it.
      if (REFUSED.has(response.status)) return 'refused';
      // 409 is an answer, too: it brings what this desk has not seen.
      if (!response.ok && response.status !== 409) return null;
      const parsed = appendAnswerSchema.safeParse(await response.json());
      return parsed.success ? parsed.data : null;
    } catch {
      return null;
    }
  }

  private retryLater() {
    reach.waiting = Math.max(1, this.unsent.length);
    if (this.state.kind !== 'signedOut') this.state = { kind: 'waiting', count: this.unsent.length };
    if (this.closed) return;
    this.timer = setTimeout(() => void this.flush(), RETRY_MS);
  }

  /** Of several gestures one by one is sent, until the one that is refused is known: that one is set aside and told. */
  private async refuse(batch: readonly Gesture[]) {
    if (batch.length > 1) {
      this.mostAtOnce = 1;
      return;
    }
    this.mostAtOnce = MOST_AT_ONCE;
    await this.drop(batch);
    const { registers, refused } = replay([...this.confirmed, ...this.unsent], this.base);
    await this.drop(refused);
    this.onRebase(registers, [...batch, ...refused], 'unreadable');
  }

  /** The server has less than this desk has seen: what it has lost is sent again, after all that it has. */
  private async restore({ headSeq, history }: Extract<AppendReply, { kind: 'restored' }>) {
    const there = new Set(history.map(({ gesture }) => gesture.id));
    const lost = this.confirmed.filter(({ id }) => !there.has(id));
    for (const gesture of lost) await keepUnsent(this.editionId, gesture);
    this.unsent = [...lost, ...this.unsent.filter(({ id }) => !there.has(id))];
    this.base = NO_REGISTERS;
    this.confirmed = history.map(({ gesture }) => gesture);
    this.seenSeq = headSeq;
    const { registers, refused } = replay([...this.confirmed, ...this.unsent], this.base);
    await this.drop(refused);
    this.onRebase(registers, refused, 'overtaken');
  }

  private async confirm(batch: readonly Gesture[], headSeq: number) {
    if (this.unsent.length === batch.length) this.mostAtOnce = MOST_AT_ONCE;
    this.confirmed.push(...batch);
    this.unsent = this.unsent.slice(batch.length);
    this.seenSeq = headSeq;
    await forgetUnsent(this.editionId, new Set(batch.map((gesture) => gesture.id)));
  }

  private async rebase(reply: Extract<AppendReply, { kind: 'behind' }>) {
    this.confirmed.push(...reply.missing.map((stored) => stored.gesture));
    this.seenSeq = reply.headSeq;
    const known = new Set(reply.missing.map((stored) => stored.gesture.id));
    const arrived = this.unsent.filter((gesture) => known.has(gesture.id));
    this.unsent = this.unsent.filter((gesture) => !known.has(gesture.id));
    await forgetUnsent(this.editionId, new Set(arrived.map((gesture) => gesture.id)));
    const { registers, refused } = replay([...this.confirmed, ...this.unsent], this.base);
    await this.drop(refused);
    this.onRebase(registers, refused, 'overtaken');
  }

  private async drop(refused: readonly Gesture[]) {
    const ids = new Set(refused.map((gesture) => gesture.id));
    this.unsent = this.unsent.filter((gesture) => !ids.has(gesture.id));
    await forgetUnsent(this.editionId, ids);
  }
}
