/** The state of the desk: what is shown of one edition, and everything a teacher can do to it. */
import {
  applyOperations,
  type Attribute,
  type Gesture,
  invertOperations,
  type Operation,
  setAttribute,
} from '$core/fingering/edition/operation';
import { type Ink, type InkMarks, NO_INK } from '$core/fingering/ink';
import type { Finding, FingeringPlan, NoteChoices, PlannedNote } from '$core/fingering/plan';
import type { Role } from '$core/fingering/problem';
import type { Mark } from '$core/fingering/marks/mark';
import { marksOf } from '$core/fingering/marks/marksOf';
import type { EngravedPage } from '$core/engraving/page';
import { placeMarks, type PlacedMark } from '$core/engraving/placeMarks';
import type { ImportError } from '$core/formats/importError';
import type { ExportKind } from '$core/formats/musicxml/exportFingered';
import type { Score } from '$core/score/model';
import type { PlannerAnswer } from '$workers/protocol';
import { Saver } from './saver.svelte';
import { openInWorkers, type WorkerBridge } from './workers';

export interface DeskOpening {
  readonly editionId: string;
  readonly history: readonly Gesture[];
  readonly headSeq: number;
  readonly source: Uint8Array;
}

/** How long after the last selection its prices are asked for: holding an arrow key asks once. */
const PRICES_AFTER_MS = 25;

export class Desk {
  page = $state.raw<EngravedPage | null>(null);
  score = $state.raw<Score | null>(null);
  plan = $state.raw<FingeringPlan | null>(null);
  ink = $state.raw<Ink>(new Map());
  choices = $state.raw<NoteChoices | null>(null);
  refusal = $state.raw<ImportError | null>(null);
  /** The last thing that could not be done, for the person at the desk; empty when all went well. */
  notice = $state('');
  selectedUid = $state<string | null>(null);
  planMs = $state(0);
  busy = $state(true);

  readonly saver: Saver;
  private roles: ReadonlyMap<string, Role> = new Map();
  private done = $state.raw<readonly Gesture[]>([]);
  private undone = $state.raw<readonly Gesture[]>([]);
  private operation = 0;
  private workers: WorkerBridge | null = null;
  private pricesTimer: ReturnType<typeof setTimeout> | null = null;
  private exportWaiting: ((bytes: Uint8Array) => void) | null = null;

  readonly marks: readonly Mark[] = $derived(
    this.score && this.plan ? marksOf(this.score, this.plan, this.ink, this.roles) : [],
  );
  readonly placed: readonly PlacedMark[] = $derived(this.page ? placeMarks(this.page, this.marks) : []);
  readonly selected: PlannedNote | null = $derived(
    this.plan?.notes.find((note) => note.uid === this.selectedUid) ?? null,
  );
  readonly canUndo = $derived(this.done.length > 0);
  readonly canRedo = $derived(this.undone.length > 0);

  constructor(opening: DeskOpening) {
    this.saver = new Saver(opening.editionId, opening.history, opening.headSeq, (ink, refused) => {
      this.setInk(ink);
      if (refused.length > 0)
        this.notice = 'Someone else changed the same notes; your last marks there were not kept.';
    });
    void this.open(opening.source);
  }

  private async open(source: Uint8Array) {
    this.ink = await this.saver.open();
    this.workers = openInWorkers(
      source,
      (answer) => (this.page = answer.page),
      (answer) => this.hear(answer),
    );
    this.workers.plan({ kind: 'open', generation: this.workers.generation, source, ink: [...this.ink] });
  }

  close(): void {
    if (this.pricesTimer) clearTimeout(this.pricesTimer);
    this.saver.close();
    this.workers?.close();
  }

  private hear(answer: PlannerAnswer) {
    switch (answer.kind) {
      case 'opened':
        this.roles = new Map(answer.roles);
        this.score = answer.score;
        break;
      case 'refused':
        this.refusal = answer.error;
        this.busy = false;
        break;
      case 'planned':
        if (answer.operation < this.operation) return;
        this.plan = answer.plan;
        this.planMs = answer.planMs;
        this.busy = false;
        this.selectedUid ??= answer.plan.notes[0]?.uid ?? null;
        this.askPrices();
        break;
      case 'prices':
        if (answer.operation === this.operation && answer.choices.uid === this.selectedUid)
          this.choices = answer.choices;
        break;
      case 'exported':
        this.exportWaiting?.(answer.bytes);
        this.exportWaiting = null;
    }
  }

  // --- Moving about -------------------------------------------------------------------------------------------

  select(uid: string): void {
    const head = this.score?.notes.find((note) => note.uid === uid || note.tiedUids.includes(uid));
    if (!head || head.uid === this.selectedUid) return;
    this.selectedUid = head.uid;
    this.choices = null;
    this.askPrices();
  }

  /** To the moment before or after; in the voice of the selection when it has a note there. */
  moveInTime(step: 1 | -1): void {
    const here = this.selected;
    const notes = this.plan?.notes ?? [];
    if (!here) return;
    const voice = this.voiceOf(here.uid);
    const there = notes.filter((note) => note.momentIndex === here.momentIndex + step);
    const target = there.find((note) => this.voiceOf(note.uid) === voice) ?? there.at(-1);
    if (target) this.select(target.uid);
  }

  /** Through the notes of the moment, up or down in pitch. */
  moveInPitch(step: 1 | -1): void {
    const here = this.selected;
    const there = (this.plan?.notes ?? []).filter((note) => note.momentIndex === here?.momentIndex);
    const target = there[there.findIndex((note) => note.uid === here?.uid) + step];
    if (target) this.select(target.uid);
  }

  moveToFinding(step: 1 | -1): void {
    const notes = this.plan?.notes ?? [];
    const order = new Map(notes.map((note, k) => [note.uid, k]));
    const places = [
      ...new Set(this.findings.map((finding) => order.get(finding.uids[0] ?? '') ?? -1)),
    ].filter((k) => k >= 0);
    places.sort((a, b) => a - b);
    const here = order.get(this.selectedUid ?? '') ?? -1;
    const next =
      step > 0
        ? (places.find((k) => k > here) ?? places[0])
        : (places.findLast((k) => k < here) ?? places.at(-1));
    if (next !== undefined) this.select(notes[next]!.uid);
  }

  get findings(): readonly Finding[] {
    return this.plan?.findings ?? [];
  }

  barOf(uid: string): string {
    const note = this.score?.notes.find((one) => one.uid === uid);
    return note ? this.score!.measures[note.measureIndex]!.number : '';
  }

  private voiceOf = (uid: string) => this.score?.notes.find((note) => note.uid === uid)?.voice;

  // --- Deciding -----------------------------------------------------------------------------------------------

  setFinger = (finger: number) => this.set('finger', finger);
  setString = (string: number) => this.set('string', string);
  setPluck = (pluck: InkMarks['pluck']) => this.set('pluck', pluck);

  /** Finger and string of one choice in the list. */
  choose(finger: number, string: number): void {
    const uid = this.selectedUid;
    if (uid)
      this.decide([
        setAttribute(this.ink, uid, 'finger', finger),
        setAttribute(this.ink, uid, 'string', string),
      ]);
  }

  /** Inks the selected note as it stands. */
  inkSelection(): void {
    const note = this.selected;
    if (!note || note.string === null) return;
    this.decide([
      setAttribute(this.ink, note.uid, 'finger', note.finger),
      setAttribute(this.ink, note.uid, 'string', note.string),
      setAttribute(this.ink, note.uid, 'pluck', note.pluck ?? this.inkOf(note.uid).pluck),
    ]);
  }

  /** Gives the selected note back to pencil. */
  pencilSelection(): void {
    const uid = this.selectedUid;
    if (!uid) return;
    this.decide(
      (['finger', 'string', 'pluck'] as const).map((attribute) =>
        setAttribute(this.ink, uid, attribute, null),
      ),
    );
  }

  inkOf = (uid: string): InkMarks => this.ink.get(uid) ?? NO_INK;

  private set<A extends Attribute>(attribute: A, value: InkMarks[A]): void {
    const uid = this.selectedUid;
    if (uid) this.decide([setAttribute(this.ink, uid, attribute, value)]);
  }

  private decide(changes: readonly (Operation | null)[]): void {
    const operations = changes.filter((change) => change !== null);
    if (operations.length === 0) return;
    const gesture = { id: crypto.randomUUID(), operations };
    if (!this.apply(gesture)) return;
    this.done = [...this.done, gesture];
    this.undone = [];
  }

  undo(): void {
    const gesture = this.done.at(-1);
    if (!gesture) return;
    this.done = this.done.slice(0, -1);
    if (!this.apply({ id: crypto.randomUUID(), operations: invertOperations(gesture.operations) })) return;
    this.undone = [...this.undone, gesture];
    this.select(gesture.operations[0]!.noteUid);
  }

  redo(): void {
    const gesture = this.undone.at(-1);
    if (!gesture) return;
    this.undone = this.undone.slice(0, -1);
    const again = { ...gesture, id: crypto.randomUUID() };
    if (!this.apply(again)) return;
    this.done = [...this.done, again];
    this.select(gesture.operations[0]!.noteUid);
  }

  /** Applies a gesture here, keeps it for the server and plans anew. False when its values are no longer there. */
  private apply(gesture: Gesture): boolean {
    const result = applyOperations(this.ink, gesture.operations);
    if (result.kind === 'conflict') {
      this.notice = 'These marks have been changed since; nothing was done.';
      return false;
    }
    this.notice = '';
    this.setInk(result.ink);
    void this.saver.add(gesture);
    return true;
  }

  private setInk(ink: Ink) {
    this.ink = ink;
    this.operation++;
    this.choices = null;
    if (this.workers) {
      const { generation } = this.workers;
      this.workers.plan({ kind: 'apply', generation, operation: this.operation, ink: [...ink] });
    }
  }

  private askPrices() {
    if (this.pricesTimer) clearTimeout(this.pricesTimer);
    this.pricesTimer = setTimeout(() => {
      if (!this.workers || !this.selectedUid) return;
      const { generation } = this.workers;
      this.workers.plan({ kind: 'prices', generation, operation: this.operation, uid: this.selectedUid });
    }, PRICES_AFTER_MS);
  }

  /** The file with the fingering that is on the screen. */
  exportAs(kind: ExportKind): Promise<Uint8Array> {
    return new Promise((resolve) => {
      this.exportWaiting = resolve;
      if (this.workers) this.workers.plan({ kind: 'export', generation: this.workers.generation, as: kind });
    });
  }
}
