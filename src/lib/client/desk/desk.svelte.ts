/** The desk: an edition, what the planner says of it, and what the teacher does to the note that is selected. */
import { type Attribute, INK_ATTRIBUTES, PIECE, type ValueOf } from '$core/fingering/edition/attributes';
import type { Operation } from '$core/fingering/edition/operation';
import {
  correctionsOf,
  lensKey,
  type Register,
  scoreCorrectionsKey,
} from '$core/fingering/edition/registers';
import type { Finding } from '$core/fingering/report/plan';
import type { Remedy } from '$core/fingering/report/remedies';
import type { RightSchoolId } from '$core/fingering/right/rules/schools';
import type { SlurSuggestion } from '$core/fingering/slurs/suggest';
import type { Texture } from '$core/figures/texture';
import { type Sheet, sheetOf } from '$core/engraving/sheet';
import { LARGE } from '$core/engraving/sizes';
import { DESK_WIDTH, pageWidthFor } from '$core/engraving/widths';
import type { ImportError } from '$core/formats/importError';
import { importErrorText } from '$core/messages/en';
import { spokenPitch } from '$core/music/pitch';
import type { Mark } from '$core/marks/mark';
import { dampMarks } from '$core/marks/dampMarks';
import { expressionMarks } from '$core/marks/expressions';
import { inkedMarks, type PlainMarks, plainMarks } from '$core/marks/marksOf';
import { remarkMarks } from '$core/marks/remarks';
import { shownMarks } from '$core/marks/shown';
import { type Density, DENSITIES, PLAIN_MARKS } from '$core/marks/style';
import { Planning } from './planning.svelte';
import { Selection } from './selection.svelte';
import { EditionSession } from './session.svelte';
import { type DeskOpening, fetchDocument, fetchPage, fetchPlan } from './stored';

/** Findings that say that ink cannot be played. */
const CLASH = /unplayable|Contradicts/;

/** Where each edition that was open in this tab was left. */
const lastNoteOf = new Map<string, string>();

export const DESK_TABS = ['note', 'steps', 'hand', 'strokes', 'score'] as const;
export type DeskTab = (typeof DESK_TABS)[number];

export class Desk {
  /** The last thing that could not be done, for the person at the desk; empty when all went well. */
  notice = $state('');
  refusal = $state.raw<ImportError | null>(null);
  /** What has to be confirmed before it is done. */
  question = $state.raw<{ readonly text: string; readonly yes: () => void } | null>(null);
  /** Whether keys change the music itself. */
  correcting = $state(false);
  /** Which panel stands beside the score. */
  tab = $state<DeskTab>('note');
  /** The last step of a walk that was asked for; whoever shows the walk takes it. */
  walked = $state.raw<{ readonly by: 1 | -1 } | null>(null);
  /** Whether a remark to the bar is being written. */
  remarking = $state(false);
  lanesShown = $state(true);
  boardShown = $state(false);
  /** Leaves for the copy; whoever shows the desk knows how. */
  toCopy: () => void = () => {};
  /** Opens the list of everything that can be done. */
  openPalette: () => void = () => {};

  readonly session: EditionSession;
  readonly planning: Planning;
  readonly selection: Selection;
  /** The corrections that planner and page were last asked for, and the lens that the planner was. */
  private readKey = '';
  private plannedLens = '';
  private plannedInk = '';
  private closed = false;
  /** The note that was decided last, until a plan says whether it can be. */
  private decided: { readonly uid: string; readonly clashes: number } | null = null;
  /** Where to begin, if anywhere but at the beginning. */
  private atBar: string | null = null;
  /** Notes that differ from a state that is compared. */
  compared = $state.raw<ReadonlySet<string>>(new Set());
  /** The last sheet that had marks: its room stays. */
  private laidOut: Sheet | null = null;

  private readonly plain: PlainMarks | null = $derived.by(() => {
    const { score, plan, roles } = this.planning;
    return score && plan ? plainMarks(score, plan, roles, this.session.markStyle) : null;
  });
  /** At full density, with their causes. */
  readonly marks: readonly Mark[] = $derived.by(() =>
    this.plain
      ? [
          ...inkedMarks(this.plain, this.session.ink),
          ...dampMarks(this.session.damps, this.planning.roles),
          ...expressionMarks(this.session.expressions, this.planning.roles),
          ...(this.planning.score ? remarkMarks(this.session.remarks, this.planning.score) : []),
        ]
      : [],
  );
  /** Those of them that the edition prints. */
  readonly shown: readonly Mark[] = $derived.by(() =>
    this.plain ? shownMarks(this.plain, this.session.ink, this.session.showing, this.marks) : [],
  );
  /** The page with its marks; null until it is engraved. */
  readonly sheet: Sheet | null = $derived.by(() => {
    const { page } = this.planning;
    if (!page) return null;
    const { size } = this.session.markStyle;
    const sheet = sheetOf(page, this.shown, {
      before: this.laidOut,
      roomFor: this.marks,
      scale: size === 'large' ? LARGE : 1,
    });
    // Room is given for good once there are marks; before that it is a guess.
    if (this.marks.length > 0) this.laidOut = sheet;
    return sheet;
  });

  /** @param withPage false for a view that shows no score: nothing is engraved then */
  constructor(
    private readonly opening: DeskOpening,
    private readonly withPage = true,
  ) {
    const say = (notice: string) => (this.notice = notice);
    this.planning = new Planning({
      planned: () => this.ready(),
      refused: (error) => this.refuse(error),
      failed: say,
    });
    this.selection = new Selection(this.planning);
    this.session = new EditionSession(opening, () => this.follow(), say);
  }

  /**
   * To be called in the browser. The stored page and plan are shown at once; the planner follows and answers the first question.
   * @param atBar the bar whose first note is selected
   */
  async open(atBar: string | null = null): Promise<void> {
    this.atBar = atBar;
    const { planning, session } = this;
    const [, stored, plan] = await Promise.all([
      session.open(),
      this.withPage || this.opening.stored.page ? fetchPage(this.opening) : null,
      fetchPlan(this.opening),
    ]);
    if (this.closed) return;
    this.readKey = scoreCorrectionsKey(session.registers);
    this.plannedLens = lensKey(session.registers);
    this.plannedInk = JSON.stringify([...session.ink]);
    if (stored && session.saver.unsentCount === 0) {
      planning.take(stored.score, stored.roles);
      planning.page = stored.page;
      if (plan) planning.show(plan);
      this.selectFirst();
    }
    try {
      const document = await fetchDocument(this.opening);
      // A desk that was left meanwhile must not take the planner from the next one.
      if (this.closed) return;
      planning.begin(document);
    } catch (error) {
      this.notice = error instanceof Error ? error.message : String(error);
      return;
    }
    const hasWholePage = planning.page !== null && this.opening.stored.page !== null;
    const isAsStored = planning.pageWidth === DESK_WIDTH;
    void planning.read(session.registers, this.withPage && !(hasWholePage && isAsStored));
  }

  close(): void {
    this.closed = true;
    if (this.selection.uid) lastNoteOf.set(this.opening.piece.editionId, this.selection.uid);
    this.session.close();
    this.planning.leave();
  }

  /** Asks for what the last change makes new: another score, another hand or school, or other ink. */
  private follow(): void {
    const { planning, session } = this;
    const key = scoreCorrectionsKey(session.registers);
    const lens = lensKey(session.registers);
    const sameScore = key === this.readKey;
    const ink = JSON.stringify([...session.ink]);
    const sameInk = ink === this.plannedInk;
    this.plannedInk = ink;
    // What only the page shows is nothing to plan.
    if (sameScore && sameInk && lens === this.plannedLens) return;
    if (sameScore && lens === this.plannedLens) return void planning.replan(session.ink);
    this.readKey = key;
    this.plannedLens = lens;
    planning.forgetProposals();
    // Another hand or school plans anew on the same page.
    void planning.read(session.registers, this.withPage && !sameScore);
  }

  private ready(): void {
    void this.settle();
    this.selectFirst();
    this.planning.askPrices(this.selection.uid);
  }

  /** The first note that can be played, of the bar that was asked for or of the piece. */
  private selectFirst(): void {
    if (this.selection.uid !== null) return;
    const { score, plan } = this.planning;
    const bar = score?.measures.find(({ uid }) => uid === this.atBar);
    const inBar = score?.notes.filter((note) => note.measureIndex === bar?.index).map(({ uid }) => uid);
    const left = bar ? null : (lastNoteOf.get(this.opening.piece.editionId) ?? null);
    const first =
      plan?.notes.find(({ uid }) => inBar?.includes(uid)) ??
      plan?.notes.find(({ uid }) => uid === left) ??
      plan?.notes[0];
    this.selection.uid = first?.uid ?? null;
  }

  /** A correction under which the score cannot be read is undone, and said so. */
  private refuse(error: ImportError): void {
    if (!this.session.canUndo) this.refusal = error;
    else {
      this.session.takeBack();
      this.notice = `The correction was taken back. ${importErrorText(error)}`;
    }
  }

  get findings(): readonly Finding[] {
    return this.planning.plan?.findings ?? [];
  }

  // --- Deciding -----------------------------------------------------------------------------------------------

  /** Finger and string of one choice in the list. */
  choose(finger: number, string: number): void {
    const { session, selection } = this;
    if (selection.uid)
      this.decideHere(selection.uid, [
        session.change(selection.uid, 'finger', finger),
        session.change(selection.uid, 'string', string),
      ]);
  }

  /** Decides a note: when the next plan cannot have it with older ink, that goes, or the decision does. */
  decideHere(uid: string, changes: readonly (Operation | null)[]): void {
    const clashes = this.findings.filter(({ code }) => CLASH.test(code)).flatMap(({ uids }) => uids).length;
    this.decided = { uid, clashes };
    this.session.decide(changes);
  }

  private async settle(): Promise<void> {
    const { decided } = this;
    this.decided = null;
    if (!decided) return;
    const clashing = this.findings.filter(({ code }) => CLASH.test(code)).flatMap(({ uids }) => uids);
    if (clashing.length <= decided.clashes) return;
    const yielding = await this.planning.yielding(decided.uid, decided.clashes);
    if (yielding?.length === 0) return;
    const name = this.nameOf(decided.uid);
    if (yielding === null) {
      this.session.takeBack();
      this.notice = `No hand can play ${name} so with the notes around it. Nothing was changed.`;
      return;
    }
    const { session } = this;
    session.decide(
      yielding.flatMap((uid) => INK_ATTRIBUTES.map((attribute) => session.change(uid, attribute, null))),
    );
    this.notice = `With this ${name}, the ink of ${yielding.map((uid) => `${this.nameOf(uid)} in bar ${this.selection.barOf(uid)}`).join(', ')} cannot be played: released. Ctrl z takes it back.`;
  }

  /** "B3"; empty for a note that is not there. */
  nameOf(uid: string): string {
    const note = this.planning.score?.notes.find((one) => one.uid === uid);
    return note ? spokenPitch(note.pitch, note.soundingMidi) : '';
  }

  /** Inks the selected note as it stands. */
  inkSelection(): void {
    const { session, selection } = this;
    const { note } = selection;
    if (!note || note.string === null) return;
    session.decide([
      session.change(note.uid, 'finger', note.finger),
      session.change(note.uid, 'string', note.string),
      session.change(note.uid, 'pluck', note.pluck ?? session.inkOf(note.uid).pluck),
    ]);
  }

  /** Gives the selected note back to pencil. */
  pencilSelection(): void {
    const { session, selection } = this;
    const { uid } = selection;
    if (!uid) return;
    session.decide(
      (['finger', 'string', 'pluck'] as const).map((attribute) => session.change(uid, attribute, null)),
    );
  }

  /** Sets anything of a note, a bar or the piece; null takes it back. */
  set<A extends Attribute>(target: string, attribute: A, value: ValueOf<A>): void {
    this.session.decide([this.session.change(target, attribute, value)]);
  }

  /** Takes one correction back. */
  clear({ target, attribute }: Pick<Register, 'target' | 'attribute'>): void {
    this.session.decide([this.session.change(target, attribute, null)]);
  }

  /** Takes one of the ways out that a finding offers: an operation like any other. */
  accept({ target, attribute, value }: Remedy): void {
    this.session.decide([this.session.change(target, attribute, value as never)]);
  }

  undo(): void {
    const target = this.session.undo();
    if (target) this.selection.select(target);
  }

  redo(): void {
    const target = this.session.redo();
    if (target) this.selection.select(target);
  }

  /** Inks the letters of a formula over a passage. */
  async playFormula(formula: string, from: number, to: number): Promise<void> {
    const letters = await this.planning.lettersOf(formula, from, to);
    this.session.decide((letters ?? []).map(([uid, pluck]) => this.session.change(uid, 'pluck', pluck)));
  }

  /** Gives some bars a school of the right hand of their own, or null back to that of the piece. */
  setStrokeSchool(bars: readonly string[], school: RightSchoolId | null): void {
    this.session.decide(bars.map((bar) => this.session.change(bar, 'strokeSchool', school)));
  }

  /** Names the texture of some notes, or null leaves it to what is read. */
  setTexture(uids: readonly string[], texture: Texture | null): void {
    this.session.decide(uids.map((uid) => this.session.change(uid, 'texture', texture)));
  }

  /** Fits the page into so many pixels: in a narrow window with fewer bars to a system. */
  fitPage(pixels: number): void {
    if (this.withPage && pixels > 0) this.planning.setPageWidth(pageWidthFor(pixels));
  }

  // --- Showing ------------------------------------------------------------------------------------------------

  get scoreCorrections() {
    return correctionsOf(this.session.registers);
  }

  /** The marks of the selected note that are on the page. */
  readonly marksHere: readonly Mark[] = $derived.by(() => {
    const { uid } = this.selection;
    return this.shown.filter((mark) => (mark.kind === 'guide' ? mark.toUid : mark.uid) === uid);
  });

  /** The next density, from full to sparse and back: kept with the edition. */
  nextDensity(): void {
    const { density } = this.session.markStyle;
    this.setDensity(DENSITIES[(DENSITIES.indexOf(density) + 1) % DENSITIES.length]!);
  }

  setDensity(density: Density): void {
    if (density !== this.session.markStyle.density)
      this.set(PIECE, 'density', density === PLAIN_MARKS.density ? null : density);
  }

  /** Whether the signs of the selected note are printed at every density. */
  get isAlwaysPrinted(): boolean {
    const { uid } = this.selection;
    return uid !== null && this.session.showing.kept.has(uid);
  }

  /** Stops the string of the selected note after it, then all strings, then none. */
  nextDamp(): void {
    const { uid } = this.selection;
    const now = uid === null ? null : (this.session.damps.get(uid) ?? null);
    if (uid) this.set(uid, 'damp', now === null ? 'string' : now === 'string' ? 'all' : null);
  }

  toggleAlwaysPrint(): void {
    const { uid } = this.selection;
    if (uid) this.set(uid, 'alwaysPrint', this.isAlwaysPrinted ? null : true);
  }

  /** One step of the walk, in whatever passage it goes round. */
  walk(by: 1 | -1): void {
    this.walked = this.tab === 'steps' ? { by } : null;
    this.tab = 'steps';
  }

  toggleBoard(): void {
    this.boardShown = !this.boardShown;
  }

  toggleLanes(): void {
    this.lanesShown = !this.lanesShown;
  }

  /** What the teacher says of bars, by their index. */
  get remarks(): readonly (readonly [number, string])[] {
    const { remarks } = this.session;
    return (this.planning.score?.measures ?? []).flatMap(({ uid, index }) => {
      const words = remarks.get(uid);
      return words === undefined ? [] : [[index, words] as const];
    });
  }

  /** The proposed slur that begins or ends at the selected note. */
  get slurHere(): SlurSuggestion | null {
    const { uid } = this.selection;
    return this.planning.slurs?.find((one) => one.toUid === uid || one.fromUid === uid) ?? null;
  }
}
