/** The note that the teacher is at, and the ways from it to the next. */
import type { PlannedNote } from '$core/fingering/report/plan';
import type { Planning } from './planning.svelte';

export class Selection {
  uid = $state<string | null>(null);
  readonly note: PlannedNote | null = $derived.by(
    () => this.planning.plan?.notes.find((note) => note.uid === this.uid) ?? null,
  );

  constructor(private readonly planning: Planning) {}

  /** A tied note stands for the one that is struck. */
  select(uid: string): void {
    const head = this.planning.score?.notes.find((note) => note.uid === uid || note.tiedUids.includes(uid));
    if (!head || head.uid === this.uid) return;
    this.uid = head.uid;
    this.planning.forgetPrices();
    this.planning.askPrices(head.uid);
  }

  /** To the moment before or after; in the voice of the selection when it has a note there. */
  moveInTime(step: 1 | -1): void {
    const here = this.note;
    if (!here) return;
    const voice = this.voiceOf(here.uid);
    const there = this.notes.filter((note) => note.momentIndex === here.momentIndex + step);
    const target = there.find((note) => this.voiceOf(note.uid) === voice) ?? there.at(-1);
    if (target) this.select(target.uid);
  }

  /** Through the notes of the moment, up or down in pitch. */
  moveInPitch(step: 1 | -1): void {
    const here = this.note;
    const there = this.notes.filter((note) => note.momentIndex === here?.momentIndex);
    const target = there[there.findIndex((note) => note.uid === here?.uid) + step];
    if (target) this.select(target.uid);
  }

  moveToFinding(step: 1 | -1): void {
    const order = new Map(this.notes.map((note, k) => [note.uid, k]));
    const findings = this.planning.plan?.findings ?? [];
    const places = [...new Set(findings.map(({ uids }) => order.get(uids[0] ?? '') ?? -1))]
      .filter((k) => k >= 0)
      .sort((a, b) => a - b);
    const here = order.get(this.uid ?? '') ?? -1;
    const next =
      step > 0
        ? (places.find((k) => k > here) ?? places[0])
        : (places.findLast((k) => k < here) ?? places.at(-1));
    if (next !== undefined) this.select(this.notes[next]!.uid);
  }

  /** Number of the bar of a note. */
  barOf(uid: string): string {
    const { score } = this.planning;
    const note = score?.notes.find((one) => one.uid === uid);
    return note ? score!.measures[note.measureIndex]!.number : '';
  }

  private get notes(): readonly PlannedNote[] {
    return this.planning.plan?.notes ?? [];
  }

  private voiceOf = (uid: string) => this.planning.score?.notes.find((note) => note.uid === uid)?.voice;
}
