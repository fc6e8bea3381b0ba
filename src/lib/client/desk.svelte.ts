/** The state of the desk: what is shown of one edition, and everything a teacher can do to it. */
import {
  applyOperations,
  type Gesture,
  invertOperations,
  type Operation,
  setAttribute,
} from '$core/fingering/edition/operation';
import type { Attribute, InkAttribute, Value, ValueOf } from '$core/fingering/edition/attributes';
import {
  correctionsOf,
  inkOf,
  isCorrection,
  lensKey,
  lensOf,
  listRegisters,
  NO_REGISTERS,
  type Register,
  type Registers,
  scoreCorrectionsKey,
} from '$core/fingering/edition/registers';
import { type Ink, type InkMarks, NO_INK } from '$core/fingering/problem/ink';
import type { Finding, FingeringPlan, NoteChoices, PlannedNote } from '$core/fingering/report/plan';
import type { HandAction } from '$core/fingering/left/explain/handScript';
import type { Role } from '$core/fingering/problem/strike';
import type { Remedy } from '$core/fingering/report/remedies';
import type { Way } from '$core/fingering/formulas/compare';
import type { RightSchoolId } from '$core/fingering/right/rules/schools';
import type { StrokeAction } from '$core/fingering/right/explain/strokeScript';
import type { SlurSuggestion } from '$core/fingering/slurs/suggest';
import type { Texture } from '$core/figures/texture';
import type { Mark } from '$core/marks/mark';
import { marksOf } from '$core/marks/marksOf';
import type { EngravedPage } from '$core/engraving/page';
import { placeMarks, type PlacedMark } from '$core/engraving/placeMarks';
import type { ImportError } from '$core/formats/importError';
import type { ExportKind } from '$core/formats/musicxml/exportFingered';
import { importErrorText } from '$core/messages/en';
import type { Score } from '$core/score/model';
import type { DocumentInput } from '$workers/readInput';
import type { Roles } from '$workers/preparePage';
import type { PlannerAnswer } from '$workers/protocol';
import { Saver } from './saver.svelte';
import { type DeskDocument, type DeskOpening, fetchDocument, fetchPage, fetchPlan } from './stored';
import { connectWorkers, type WorkerBridge } from './workers';

/** How long after the last selection its prices are asked for: holding an arrow key asks once. */
const PRICES_AFTER_MS = 25;

export class Desk {
  page = $state.raw<EngravedPage | null>(null);
  score = $state.raw<Score | null>(null);
  plan = $state.raw<FingeringPlan | null>(null);
  registers = $state.raw<Registers>(NO_REGISTERS);
  choices = $state.raw<NoteChoices | null>(null);
  /** The left hand step by step, once it has been asked for. */
  script = $state.raw<readonly HandAction[] | null>(null);
  /** The same for the right hand. */
  strokeScript = $state.raw<readonly StrokeAction[] | null>(null);
  /** Slurs that would cure something, once they have been asked for. */
  slurs = $state.raw<readonly SlurSuggestion[] | null>(null);
  /** Several ways to play a passage, the last that was asked about. */
  ways = $state.raw<{ readonly from: number; readonly to: number; readonly ways: readonly Way[] } | null>(
    null,
  );
  refusal = $state.raw<ImportError | null>(null);
  /** The last thing that could not be done, for the person at the desk; empty when all went well. */
  notice = $state('');
  selectedUid = $state<string | null>(null);
  planMs = $state(0);
  lanesShown = $state(true);
  busy = $state(true);

  readonly saver: Saver;
  private roles: ReadonlyMap<string, Role> = new Map();
  private done = $state.raw<readonly Gesture[]>([]);
  private undone = $state.raw<readonly Gesture[]>([]);
  private operation = 0;
  private workers: WorkerBridge | null = null;
  private document: DeskDocument | null = null;
  /** The corrections that the planner and the page were last asked for. */
  private readKey = '';
  /** The lens that the planner was last asked for. */
  private plannedLens = '';
  private pricesTimer: ReturnType<typeof setTimeout> | null = null;
  private closed = false;
  private exportWaiting: ((bytes: Uint8Array) => void) | null = null;

  readonly ink: Ink = $derived(inkOf(this.registers));
  readonly corrections: readonly Register[] = $derived(
    listRegisters(this.registers).filter(({ attribute }) => isCorrection(attribute)),
  );
  readonly marks: readonly Mark[] = $derived(
    this.score && this.plan ? marksOf(this.score, this.plan, this.ink, this.roles) : [],
  );
  readonly placed: readonly PlacedMark[] = $derived(this.page ? placeMarks(this.page, this.marks) : []);
  readonly selected: PlannedNote | null = $derived(
    this.plan?.notes.find((note) => note.uid === this.selectedUid) ?? null,
  );
  readonly canUndo = $derived(this.done.length > 0);
  readonly canRedo = $derived(this.undone.length > 0);

  /** @param withPage false for a view that shows no score: nothing is engraved then */
  constructor(
    private readonly opening: DeskOpening,
    private readonly withPage = true,
  ) {
    const { piece, history, headSeq } = opening;
    this.saver = new Saver(piece.editionId, history, headSeq, (registers, refused) => {
      this.setRegisters(registers);
      if (refused.length > 0)
        this.notice = 'Someone else changed the same notes; your last marks there were not kept.';
    });
  }

  /** To be called in the browser. The stored page and plan are shown at once; the planner follows and answers the first question. */
  async open(): Promise<void> {
    const [registers, stored, plan] = await Promise.all([
      this.saver.open(),
      this.withPage || this.opening.stored.page ? fetchPage(this.opening) : null,
      fetchPlan(this.opening),
    ]);
    if (this.closed) return;
    this.registers = registers;
    this.readKey = scoreCorrectionsKey(registers);
    this.plannedLens = lensKey(registers);
    const unsent = this.saver.unsentCount > 0;
    if (stored && !unsent) {
      this.take(stored.score, stored.roles);
      this.page = stored.page;
      if (plan) this.show(plan);
    }
    try {
      this.document = await fetchDocument(this.opening);
    } catch (error) {
      this.notice = error instanceof Error ? error.message : String(error);
      return;
    }
    // A desk that was left meanwhile must not take the workers from the next one.
    if (this.closed) return;
    this.workers = connectWorkers(
      (answer) => {
        if (answer.page && answer.operation >= this.operation) this.page = answer.page;
      },
      (answer) => this.hear(answer),
    );
    this.read(this.page !== null);
  }

  close(): void {
    this.closed = true;
    if (this.pricesTimer) clearTimeout(this.pricesTimer);
    this.saver.close();
    this.workers?.close();
  }

  /** Asks both workers to read the document under the corrections as they are now. */
  private read(pageIsThere: boolean) {
    if (!this.workers || !this.document) return;
    const tagged = { generation: this.workers.generation, operation: this.operation };
    const input: DocumentInput = { ...this.document, registers: [...this.registers] };
    this.workers.plan({ kind: 'open', ...tagged, input });
    if (this.withPage && !pageIsThere) this.workers.engrave({ ...tagged, input });
  }

  private hear(answer: PlannerAnswer) {
    switch (answer.kind) {
      case 'opened':
        this.take(answer.score, answer.roles);
        break;
      case 'refused':
        this.busy = false;
        if (this.done.length > 0) this.takeBack(answer.error);
        else this.refusal = answer.error;
        break;
      case 'planned':
        if (answer.operation < this.operation) return;
        this.planMs = answer.planMs;
        this.show(answer.plan);
        this.askPrices();
        // Whoever shows these asks for them again.
        this.script = null;
        this.strokeScript = null;
        this.slurs = null;
        break;
      case 'prices':
        if (answer.operation === this.operation && answer.choices.uid === this.selectedUid)
          this.choices = answer.choices;
        break;
      case 'script':
        if (answer.operation !== this.operation) return;
        this.script = answer.script;
        this.strokeScript = answer.strokes;
        break;
      case 'slurs':
        if (answer.operation === this.operation) this.slurs = answer.slurs;
        break;
      case 'ways':
        if (answer.operation === this.operation) this.ways = answer;
        break;
      case 'formula':
        if (answer.operation === this.operation)
          this.decide(answer.plucks.map(([uid, pluck]) => this.change(uid, 'pluck', pluck)));
        break;
      case 'exported':
        this.exportWaiting?.(answer.bytes);
        this.exportWaiting = null;
    }
  }

  private take(score: Score, roles: Roles) {
    this.roles = new Map(roles);
    this.score = score;
  }

  private show(plan: FingeringPlan) {
    this.plan = plan;
    this.busy = false;
    this.selectedUid ??= plan.notes[0]?.uid ?? null;
  }

  /** A correction under which the score cannot be read is undone, and said so. */
  private takeBack(error: ImportError) {
    this.undo();
    this.undone = this.undone.slice(0, -1);
    this.notice = `The correction was taken back. ${importErrorText(error)}`;
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

  setFinger = (finger: number) => this.setInk('finger', finger);
  setString = (string: number) => this.setInk('string', string);
  setPluck = (pluck: InkMarks['pluck']) => this.setInk('pluck', pluck);

  /** Finger and string of one choice in the list. */
  choose(finger: number, string: number): void {
    const uid = this.selectedUid;
    if (uid) this.decide([this.change(uid, 'finger', finger), this.change(uid, 'string', string)]);
  }

  /** Inks the selected note as it stands. */
  inkSelection(): void {
    const note = this.selected;
    if (!note || note.string === null) return;
    this.decide([
      this.change(note.uid, 'finger', note.finger),
      this.change(note.uid, 'string', note.string),
      this.change(note.uid, 'pluck', note.pluck ?? this.inkOf(note.uid).pluck),
    ]);
  }

  /** Gives the selected note back to pencil. */
  pencilSelection(): void {
    const uid = this.selectedUid;
    if (!uid) return;
    this.decide(
      (['finger', 'string', 'pluck'] as const).map((attribute) => this.change(uid, attribute, null)),
    );
  }

  inkOf = (uid: string): InkMarks => this.ink.get(uid) ?? NO_INK;

  /** Sets anything of a note, a bar or the piece; null takes it back. */
  set<A extends Attribute>(target: string, attribute: A, value: ValueOf<A>): void {
    this.decide([this.change(target, attribute, value)]);
  }

  /** Takes one correction back. */
  clear({ target, attribute }: Pick<Register, 'target' | 'attribute'>): void {
    this.decide([this.change(target, attribute, null)]);
  }

  private change<A extends Attribute>(target: string, attribute: A, value: ValueOf<A>) {
    return setAttribute(this.registers, target, attribute, value);
  }

  private setInk<A extends InkAttribute>(attribute: A, value: ValueOf<A>): void {
    if (this.selectedUid) this.set(this.selectedUid, attribute, value);
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
    this.select(gesture.operations[0]!.target);
  }

  redo(): void {
    const gesture = this.undone.at(-1);
    if (!gesture) return;
    this.undone = this.undone.slice(0, -1);
    const again = { ...gesture, id: crypto.randomUUID() };
    if (!this.apply(again)) return;
    this.done = [...this.done, again];
    this.select(gesture.operations[0]!.target);
  }

  /** Applies a gesture here, keeps it for the server and plans anew. False when its values are no longer there. */
  private apply(gesture: Gesture): boolean {
    const result = applyOperations(this.registers, gesture.operations);
    if (result.kind === 'conflict') {
      this.notice = 'These marks have been changed since; nothing was done.';
      return false;
    }
    this.notice = '';
    this.setRegisters(result.registers);
    void this.saver.add(gesture);
    return true;
  }

  private setRegisters(registers: Registers) {
    this.registers = registers;
    this.operation++;
    this.choices = null;
    const key = scoreCorrectionsKey(registers);
    const lens = lensKey(registers);
    const sameScore = key === this.readKey;
    if (!sameScore || lens !== this.plannedLens) {
      this.readKey = key;
      this.plannedLens = lens;
      this.ways = null;
      // What was proposed under another hand or school must not be taken under this one.
      this.slurs = null;
      // Another hand or school plans anew on the same page.
      this.read(sameScore);
    } else if (this.workers) {
      const { generation } = this.workers;
      this.workers.plan({
        kind: 'apply',
        generation,
        operation: this.operation,
        ink: [...inkOf(registers)],
      });
    }
  }

  valueOf = (target: string, attribute: Attribute): Value =>
    this.registers.get(`${target} ${attribute}`) ?? null;

  get scoreCorrections() {
    return correctionsOf(this.registers);
  }

  private askPrices() {
    if (this.pricesTimer) clearTimeout(this.pricesTimer);
    this.pricesTimer = setTimeout(() => {
      if (!this.workers || !this.selectedUid) return;
      const { generation } = this.workers;
      this.workers.plan({
        kind: 'prices',
        generation,
        operation: this.operation,
        uid: this.selectedUid,
      });
    }, PRICES_AFTER_MS);
  }

  toggleLanes(): void {
    this.lanesShown = !this.lanesShown;
  }

  askScript(): void {
    this.ask('script');
  }

  ask(kind: 'script' | 'slurs'): void {
    if (!this.workers) return;
    const { generation } = this.workers;
    this.workers.plan({ kind, generation, operation: this.operation });
  }

  askWays(from: number, to: number): void {
    if (!this.workers) return;
    const { generation } = this.workers;
    this.workers.plan({ kind: 'ways', generation, operation: this.operation, from, to });
  }

  /** Inks the letters of a formula over a passage. */
  playFormula(formula: string, from: number, to: number): void {
    if (!this.workers) return;
    const { generation } = this.workers;
    this.workers.plan({ kind: 'formula', generation, operation: this.operation, formula, from, to });
  }

  /** Gives some bars a school of the right hand of their own, or null back to that of the piece. */
  setStrokeSchool(bars: readonly string[], school: RightSchoolId | null): void {
    this.decide(bars.map((bar) => this.change(bar, 'strokeSchool', school)));
  }

  /** Names the texture of some notes, or null leaves it to what is read. */
  setTexture(uids: readonly string[], texture: Texture | null): void {
    this.decide(uids.map((uid) => this.change(uid, 'texture', texture)));
  }

  /** The proposed slur that begins or ends at the selected note. */
  get slurHere(): SlurSuggestion | null {
    const uid = this.selectedUid;
    return this.slurs?.find((one) => one.toUid === uid || one.fromUid === uid) ?? null;
  }

  /** Takes one of the ways out that a finding offers: an operation like any other. */
  accept({ target, attribute, value }: Remedy): void {
    this.decide([setAttribute(this.registers, target, attribute, value as never)]);
  }

  readonly lens = $derived(lensOf(this.registers));

  /** The file with the fingering that is on the screen. */
  exportAs(kind: ExportKind): Promise<Uint8Array> {
    return new Promise((resolve) => {
      this.exportWaiting = resolve;
      if (this.workers) this.workers.plan({ kind: 'export', generation: this.workers.generation, as: kind });
    });
  }
}
