/**
 * The planner of the opened piece as questions and answers. A new question is one method here; whoever asks gets a
 * promise, with null where something newer has made the question pointless.
 */
import { correctionsOf, inkOf, lensOf, type Registers } from '../core/fingering/edition/registers';
import type { Way } from '../core/fingering/formulas/compare';
import { type Transposition, transpositionsOf } from '../core/fingering/choices/transpositions';
import { maybeFormula } from '../core/fingering/formulas/formulas';
import type { Planner } from '../core/fingering/planner';
import { type Ink, type InkMarks, NO_INK } from '../core/fingering/problem/ink';
import { PIECE } from '../core/fingering/edition/attributes';
import { stringsNear } from '../core/fingering/choices/position';
import type { LeftSchoolId } from '../core/fingering/left/rules/schools';
import type { RightSchoolId } from '../core/fingering/right/rules/schools';
import type { FingeringPlan, NoteChoices } from '../core/fingering/report/plan';
import type { Scripts } from '../core/practice/walk';
import type { SlurSuggestion } from '../core/fingering/slurs/suggest';
import type { ImportError } from '../core/formats/importError';
import { type MusicXmlText, readMusicXmlText } from '../core/formats/musicxml/bytes';
import { type ExportKind, exportFingered } from '../core/formats/musicxml/exportFingered';
import { readScore, type ScoreDocument } from '../core/formats/musicxml/readScore';
import type { Damp } from '../core/marks/dampMarks';
import type { SaidWords } from '../core/formats/musicxml/writeBarWords';
import type { Expression } from '../core/marks/expressions';
import type { MarkStyle } from '../core/marks/style';
import type { Corrections } from '../core/score/corrections';
import { excerptOf } from '../core/score/excerpt';
import type { Pluck, Score } from '../core/score/model';
import { plannerFor } from './preparePlan';
import { type Roles, rolesOfScore } from './roles';
import { type DocumentInput, registersOf } from './readInput';
import { Turns } from './turns';

/** Longer pieces show a plan of their first bars before that of the whole. */
const LONG_BARS = 64;
const FIRST_BARS = 16;

export type InkEntries = readonly (readonly [string, InkMarks])[];

export type Opened = { readonly score: Score; readonly roles: Roles } | { readonly error: ImportError };

export interface Planned {
  readonly plan: FingeringPlan;
  readonly planMs: number;
}

export interface PricedTransposition extends Transposition {
  /** Of both hands, in tenths. */
  readonly cost: number;
}

export interface Transpositions {
  /** How many bars, from the first, the costs are of. */
  readonly bars: number;
  readonly rows: readonly PricedTransposition[];
}

/** As much of a piece as a comparison of pitches can wait for. */
const PRICED_BARS = 32;
const MOST_TRANSPOSITIONS = 5;

/** Letters by note. */
export type Plucks = readonly (readonly [string, Pluck])[];

/** How a passage is to be planned otherwise; what is null stays as it is. */
export interface PassageWish {
  readonly school: LeftSchoolId | null;
  readonly rightSchool: RightSchoolId | null;
  /** Fret of the first finger: every note that has a place within five frets from there is played there. */
  readonly position: number | null;
}

interface Session {
  readonly source: MusicXmlText;
  readonly document: ScoreDocument;
  readonly corrections: Corrections;
  readonly registers: Registers;
  readonly planner: Planner;
  ink: Ink;
}

export interface RangeCosts {
  readonly stands: number;
  readonly best: number;
}

/** What else is written into the file: where strings are stopped, how notes are to sound, what is said of bars. */
export interface Performance {
  readonly damps: readonly (readonly [string, Damp])[];
  readonly expressions: readonly Expression[];
  /** By index of the bar. */
  readonly remarks: readonly (readonly [number, string])[];
}

const remarkWords = (remarks: Performance['remarks']): SaidWords => ({
  bars: new Map(remarks.map(([bar, remark]) => [bar, { chord: null, form: null, remark }])),
  counting: new Map(),
});

export class PlannerService {
  private readonly turns = new Turns(new Set(['open', 'close']));
  private session: Session | null = null;
  private exactTurn = 0;

  /** Reads a document under the corrections among its registers; asked again whenever these change. */
  open(input: DocumentInput): Promise<Opened | null> {
    return this.turns.take('open', () => this.read(input));
  }

  /** The plan of the first bars of a long piece, which is there before the whole can be; null for others. */
  beginning(): Promise<Planned | null> {
    return this.ask('beginning', ({ document: { score }, registers, ink }) => {
      if (score.measures.length <= LONG_BARS) return null;
      const started = performance.now();
      const plan = plannerFor(excerptOf(score, 0, FIRST_BARS - 1), registers).plan(ink);
      return { plan, planMs: performance.now() - started };
    });
  }

  /**
   * The plan around the ink; without one, around the ink that the document came with.
   * @param heard is told the share that is done, where it takes a while
   */
  async plan(ink?: InkEntries, heard?: (share: number) => void): Promise<Planned | null> {
    const session = await this.ask('plan', (here) => here);
    if (!session) return null;
    for (const share of session.planner.growing()) {
      heard?.(share);
      await aTurn();
      if (this.session !== session) return null;
    }
    return this.ask('plan', (session) => {
      if (ink) session.ink = new Map(ink);
      const started = performance.now();
      const plan = session.planner.plan(session.ink);
      setTimeout(() => void this.prepareWhileIdle(session), 0);
      return { plan, planMs: performance.now() - started };
    });
  }

  /** What the choices for a note cost at least, at once. */
  prices(uid: string): Promise<NoteChoices | null> {
    return this.ask('prices', ({ planner, ink }) => planner.choices(ink, uid));
  }

  /** What they cost: worked out a choice at a time, while nobody asks for anything else. */
  async exactPrices(uid: string): Promise<NoteChoices | null> {
    const turn = ++this.exactTurn;
    const begun = await this.ask('exactPrices', (session) => ({
      session,
      ink: session.ink,
      steps: session.planner.exactChoices(session.ink, uid),
    }));
    if (!begun) return null;
    const { session, ink, steps } = begun;
    while (turn === this.exactTurn && this.session === session && session.ink === ink) {
      const step = this.turns.isIdle ? steps.next() : null;
      if (step?.done) return step.value;
      await aTurn();
    }
    return null;
  }

  /** Both hands step by step. */
  scripts(): Promise<Scripts | null> {
    return this.ask('scripts', ({ planner, ink }) => ({
      script: planner.script(ink),
      strokes: planner.strokeScript(ink),
    }));
  }

  /**
   * Other pitches at which the piece lies on the guitar, each with what it costs to play: of a long piece its first
   * bars. Between them whoever asks for anything else is answered.
   */
  async transpositions(): Promise<Transpositions | null> {
    const asked = await this.ask('transpositions', (here) => here);
    if (!asked) return null;
    const { score } = asked.document;
    const bars = Math.min(score.measures.length, PRICED_BARS);
    const { hand } = lensOf(asked.registers).player;
    const rows: PricedTransposition[] = [];
    for (const row of transpositionsOf(score, hand, MOST_TRANSPOSITIONS)) {
      while (!this.turns.isIdle) await aTurn();
      if (this.session !== asked) return null;
      rows.push({ ...row, cost: this.costAt(asked, row.semitones, bars) });
      await aTurn();
    }
    return { bars, rows };
  }

  slurs(): Promise<readonly SlurSuggestion[] | null> {
    return this.ask('slurs', ({ planner, ink }) => planner.slurs(ink));
  }

  /** Several ways to play moments `from` to `to`. */
  ways(from: number, to: number): Promise<readonly Way[] | null> {
    return this.ask('ways', ({ planner, ink }) => planner.ways(ink, from, to));
  }

  /** The letters that a formula gives to what is not inked so there. */
  formula(formula: string, from: number, to: number): Promise<Plucks | null> {
    return this.ask('formula', ({ planner, ink }) => {
      const wanted = maybeFormula(formula);
      if (!wanted) return [];
      return [...planner.withFormula(ink, from, to, wanted)].flatMap(([uid, { pluck }]) =>
        pluck !== null && ink.get(uid)?.pluck !== pluck ? [[uid, pluck] as const] : [],
      );
    });
  }

  /** Some notes of bars `first` to `last` as they would be under a wish, with the other ink of these bars as it is. */
  passage(
    first: number,
    last: number,
    uids: readonly string[],
    wish: PassageWish,
  ): Promise<InkEntries | null> {
    return this.ask('passage', ({ document: { score }, registers, ink }) => {
      const wanted = new Set(uids);
      const excerpt = excerptOf(score, first, last);
      const kept = new Map([...ink].filter(([uid]) => !wanted.has(uid)));
      if (wish.position !== null)
        for (const [uid, string] of stringsNear(excerpt, wish.position))
          if (wanted.has(uid)) kept.set(uid, { ...NO_INK, string });
      const { notes } = plannerFor(excerpt, withWish(registers, wish)).plan(kept);
      return notes.flatMap(({ uid, finger, string, pluck }) =>
        wanted.has(uid) && string !== null ? [[uid, { finger, string, pluck }] as const] : [],
      );
    });
  }

  /**
   * Which other notes' ink has to go so that a note can be played as it has been decided: one of them if that is enough,
   * the nearest first; null where not even all of them are.
   * @param clashes how many contradictions there were before
   */
  yielding(uid: string, clashes: number): Promise<{ readonly uids: readonly string[] | null } | null> {
    return this.ask('yielding', ({ planner, ink, document: { score } }) => {
      const fits = (tried: Ink) => clashesIn(planner.plan(tried)) <= clashes;
      if (fits(ink)) return { uids: [] };
      const others = inkAround(score, ink, uid);
      const without = (gone: readonly string[]) => new Map([...ink].filter(([one]) => !gone.includes(one)));
      const one = others.find((other) => fits(without([other])));
      const uids = one !== undefined ? [one] : others.length > 0 && fits(without(others)) ? others : null;
      planner.plan(ink);
      return { uids };
    });
  }

  /** What the piece costs as it stands, and without the ink of some notes; in tenths. */
  rangeCosts(uids: readonly string[]): Promise<RangeCosts | null> {
    return this.ask('rangeCosts', ({ planner, ink }) => {
      const without = new Map(ink);
      for (const uid of uids) without.delete(uid);
      const best = planner.plan(without).cost;
      return { stands: planner.plan(ink).cost, best };
    });
  }

  /** The file with the fingering as it is; never skipped. */
  exportAs(kind: ExportKind, style: MarkStyle, said: Performance): Promise<Uint8Array | null> {
    return this.ask(
      'export',
      ({ source, document, planner, ink, corrections }) =>
        exportFingered(source, document, planner.plan(ink), kind, {
          corrections,
          style,
          damps: new Map(said.damps),
          expressions: said.expressions,
          words: remarkWords(said.remarks),
        }),
      false,
    );
  }

  close(): Promise<void | null> {
    return this.turns.take('close', () => void (this.session = null), false);
  }

  /** Whether nobody has asked for anything and no piece is open. */
  get isResting(): boolean {
    return this.session === null && this.turns.isIdle;
  }

  private ask<T>(kind: string, work: (session: Session) => T | null, skippable = true): Promise<T | null> {
    return this.turns.take(kind, () => this.session && work(this.session), skippable);
  }

  /** Without ink, which belongs to the pitch that it was set at. */
  private costAt({ source, document, registers }: Session, semitones: number, bars: number): number {
    const corrections = correctionsOf(registers);
    const moved = readScore(source.text, {
      ...document,
      corrections: { ...corrections, piece: { ...corrections.piece, transpose: semitones } },
    });
    if (!moved.ok) return Infinity;
    const planner = plannerFor(excerptOf(moved.value.score, 0, bars - 1), registers);
    return planner.plan(new Map()).cost;
  }

  private read(input: DocumentInput): Opened {
    const registers = registersOf(input);
    const corrections = correctionsOf(registers);
    const source = readMusicXmlText(input.bytes);
    if (!source.ok) return { error: source.error };
    const document = readScore(source.value.text, { ...input, corrections });
    if (!document.ok) return { error: document.error };
    const { score } = document.value;
    this.session = {
      source: source.value,
      document: document.value,
      corrections,
      registers,
      planner: plannerFor(score, registers),
      ink: inkOf(registers),
    };
    return { score, roles: rolesOfScore(score) };
  }

  /** After a plan, as long as nobody asks. */
  private async prepareWhileIdle(session: Session): Promise<void> {
    const { ink } = session;
    const steps = session.planner.preparing();
    while (this.turns.isIdle && this.session === session && session.ink === ink) {
      if (steps.next().done) return;
      await aTurn();
    }
  }
}

const MOST_YIELDING = 8;

const clashesIn = ({ findings }: FingeringPlan): number =>
  findings.filter(({ code }) => /unplayable|Contradicts/.test(code)).flatMap(({ uids }) => uids).length;

/** Inked notes that sound with a note or next to it, the nearest first. */
function inkAround(score: Score, ink: Ink, uid: string): readonly string[] {
  const here = score.notes.find((note) => note.uid === uid);
  if (!here) return [];
  const far = ({ onsetTicks, durationTicks }: Score['notes'][number]) =>
    onsetTicks > here.onsetTicks
      ? onsetTicks - here.onsetTicks
      : Math.max(0, here.onsetTicks - onsetTicks - durationTicks);
  return score.notes
    .filter((note) => note.uid !== uid && ink.has(note.uid) && far(note) <= score.ticksPerQuarter)
    .sort((a, b) => far(a) - far(b))
    .slice(0, MOST_YIELDING)
    .map((note) => note.uid);
}

function withWish(registers: Registers, { school, rightSchool }: PassageWish): Registers {
  const own = new Map(registers);
  if (school !== null) own.set(`${PIECE} school`, school);
  if (rightSchool !== null) {
    own.set(`${PIECE} rightSchool`, rightSchool);
    for (const key of own.keys()) if (key.endsWith(' strokeSchool')) own.delete(key);
  }
  return own;
}

const aTurn = () => new Promise<void>((resolve) => setTimeout(resolve, 0));
