/** What the planner and the engraver say of the piece as it is now. Answers to what has changed since are dropped. */
import { proxy, type Remote } from 'comlink';
import type { CopyOptions } from '$core/copy/paper';
import type { EngravedPage } from '$core/engraving/page';
import { DESK_WIDTH } from '$core/engraving/widths';
import type { Registers } from '$core/fingering/edition/registers';
import type { Way } from '$core/fingering/formulas/compare';
import type { HandAction } from '$core/fingering/left/explain/handScript';
import type { Ink } from '$core/fingering/problem/ink';
import type { Role } from '$core/fingering/problem/strike';
import type { FingeringPlan, NoteChoices } from '$core/fingering/report/plan';
import type { StrokeAction } from '$core/fingering/right/explain/strokeScript';
import type { SlurSuggestion } from '$core/fingering/slurs/suggest';
import type { ImportError } from '$core/formats/importError';
import type { ExportKind } from '$core/formats/musicxml/exportFingered';
import type { MarkStyle } from '$core/marks/style';
import type { Score } from '$core/score/model';
import type {
  Performance,
  InkEntries,
  PassageWish,
  Planned,
  PlannerService,
  Plucks,
  RangeCosts,
  Transpositions,
} from '$workers/plannerService';
import type { DocumentInput } from '$workers/readInput';
import type { Roles } from '$workers/roles';
import { painted } from '../painted';
import { leavePlanner, startEngraver, takePlanner } from '../planner';
import type { DeskDocument } from './stored';

/** How long after the last selection its prices are asked for: holding an arrow key asks once. */
const PRICES_AFTER_MS = 25;

interface Connection {
  readonly planner: Remote<PlannerService>;
  readonly document: DeskDocument;
}

/** A passage with several ways to play it. */
export interface Ways {
  readonly from: number;
  readonly to: number;
  readonly ways: readonly Way[];
}

export interface PlanningEvents {
  readonly planned: (plan: FingeringPlan) => void;
  /** The document cannot be read under the corrections as they are. */
  readonly refused: (error: ImportError) => void;
  readonly failed: (problem: string) => void;
}

export class Planning {
  page = $state.raw<EngravedPage | null>(null);
  score = $state.raw<Score | null>(null);
  roles = $state.raw<ReadonlyMap<string, Role>>(new Map());
  plan = $state.raw<FingeringPlan | null>(null);
  planMs = $state(0);
  busy = $state(true);
  /** Of a long piece: how much has been made ready. */
  share = $state(0);
  choices = $state.raw<NoteChoices | null>(null);
  /** Each hand step by step, once it has been asked for. */
  script = $state.raw<readonly HandAction[] | null>(null);
  strokeScript = $state.raw<readonly StrokeAction[] | null>(null);
  /** Slurs that would cure something, once they have been asked for. */
  slurs = $state.raw<readonly SlurSuggestion[] | null>(null);
  /** The last passage that was asked about. */
  ways = $state.raw<Ways | null>(null);

  /** Counts the states of the edition: an answer to an earlier one is dropped. */
  private state = 0;
  /** How wide pages are engraved, what was read last, and how often a page has been asked for. */
  pageWidth = DESK_WIDTH;
  private input: DocumentInput | null = null;
  private pagesAsked = 0;
  private pricedUid: string | null = null;
  private pricesTimer: ReturnType<typeof setTimeout> | null = null;
  private connection: Connection | null = null;
  private connect!: (connection: Connection) => void;
  private disconnect!: (problem: Error) => void;
  private readonly connected = new Promise<Connection>((resolve, reject) => {
    this.connect = resolve;
    this.disconnect = reject;
  });

  constructor(private readonly events: PlanningEvents) {
    // Whoever waits is told; when nobody does, leaving is no problem.
    this.connected.catch(() => {});
  }

  /** From now on the planner has this document. */
  begin(document: DeskDocument): void {
    this.connection = { planner: takePlanner(this), document };
    this.connect(this.connection);
  }

  leave(): void {
    if (this.pricesTimer) clearTimeout(this.pricesTimer);
    this.state = Infinity;
    this.connection = null;
    this.disconnect(new Error('The desk was closed.'));
    leavePlanner(this);
  }

  take(score: Score, roles: Roles): void {
    this.roles = new Map(roles);
    this.score = score;
  }

  show(plan: FingeringPlan): void {
    this.plan = plan;
    this.share = 0;
    this.busy = false;
  }

  /** Reads the document under the corrections as they are now, and plans. */
  async read(registers: Registers, engraves: boolean): Promise<void> {
    const state = this.renewed();
    if (!this.connection) return;
    const { planner, document } = this.connection;
    const input: DocumentInput = { ...document, registers: [...registers] };
    const reading = planner.open(input);
    const beginning = this.plan ? null : planner.beginning();
    // The whole plan of a long piece takes a core for seconds: the first systems must have it before.
    this.input = input;
    const painting = engraves ? this.engrave(input) : Promise.resolve();
    const planning = painting.then(() =>
      planner.plan(
        undefined,
        proxy((share: number) => void (this.share = share)),
      ),
    );
    await this.heard(async () => {
      const opened = await reading;
      if (!opened || state === Infinity) return;
      if ('error' in opened) {
        this.busy = false;
        this.events.refused(opened.error);
      } else {
        this.take(opened.score, opened.roles);
        await this.hearBeginning(beginning, state);
        this.hearPlan(await planning, state);
      }
    });
  }

  /** Plans around other ink. */
  async replan(ink: Ink): Promise<void> {
    const state = this.renewed();
    const planning = this.connection?.planner.plan([...ink]);
    // What the key has done is painted first: a quick answer must not keep it from the eye.
    const painting = painted();
    await this.heard(async () => {
      const planned = (await planning) ?? null;
      await painting;
      this.hearPlan(planned, state);
    });
  }

  /** Prices of a note: first what they are at least, then what they are. */
  askPrices(uid: string | null): void {
    this.pricedUid = uid;
    if (this.pricesTimer) clearTimeout(this.pricesTimer);
    if (uid) this.pricesTimer = setTimeout(() => void this.price(uid), PRICES_AFTER_MS);
  }

  private async price(uid: string): Promise<void> {
    const isWanted = () => this.pricedUid === uid;
    const bounds = await this.ask(({ planner }) => planner.prices(uid));
    if (!bounds || !isWanted()) return;
    this.choices = bounds;
    const exact = await this.ask(({ planner }) => planner.exactPrices(uid));
    if (exact && isWanted()) this.choices = exact;
  }

  forgetPrices(): void {
    this.choices = null;
  }

  async askScripts(): Promise<void> {
    const scripts = await this.ask(({ planner }) => planner.scripts());
    if (!scripts) return;
    this.script = scripts.script;
    this.strokeScript = scripts.strokes;
  }

  async askSlurs(): Promise<void> {
    const slurs = await this.ask(({ planner }) => planner.slurs());
    if (slurs) this.slurs = slurs;
  }

  async askWays(from: number, to: number): Promise<void> {
    const ways = await this.ask(({ planner }) => planner.ways(from, to));
    if (ways) this.ways = { from, to, ways };
  }

  async askTranspositions(): Promise<Transpositions | null> {
    return this.ask(({ planner }) => planner.transpositions());
  }

  /** Some notes of a passage as they would be under a wish; null when something has changed meanwhile. */
  passage(
    first: number,
    last: number,
    uids: readonly string[],
    wish: PassageWish,
  ): Promise<InkEntries | null> {
    return this.ask(({ planner }) => planner.passage(first, last, uids, wish));
  }

  /** Older ink that has to go for a note's own; empty where nothing is in the way, null where nothing helps. */
  async yielding(uid: string, clashes: number): Promise<readonly string[] | null> {
    const answer = await this.ask(({ planner }) => planner.yielding(uid, clashes));
    return answer === null ? [] : answer.uids;
  }

  rangeCosts(uids: readonly string[]): Promise<RangeCosts | null> {
    return this.ask(({ planner }) => planner.rangeCosts(uids));
  }

  /** What was proposed under another hand or school must not be taken under this one. */
  forgetProposals(): void {
    this.ways = null;
    this.slurs = null;
  }

  /** Letters that a formula gives to a passage; null when something has changed meanwhile. */
  lettersOf(formula: string, from: number, to: number): Promise<Plucks | null> {
    return this.ask(({ planner }) => planner.formula(formula, from, to));
  }

  /**
   * The file with the fingering that is on the screen. Waits until the piece has been read.
   * @throws Error when the desk is closed before
   */
  async exportAs(kind: ExportKind, style: MarkStyle, said: Performance): Promise<Uint8Array> {
    const { planner } = await this.connected;
    const bytes = await planner.exportAs(kind, style, said);
    if (!bytes) throw new Error('The score could not be read, so there is nothing to save.');
    return bytes;
  }

  private renewed(): number {
    this.choices = null;
    return ++this.state;
  }

  private hearPlan(planned: Planned | null, state: number): void {
    if (!planned || state < this.state) return;
    this.planMs = planned.planMs;
    this.show(planned.plan);
    // Whoever shows these asks for them again.
    this.script = null;
    this.strokeScript = null;
    this.slurs = null;
    this.events.planned(planned.plan);
  }

  /** Until the whole is planned the desk shows what there is, and goes on waiting. */
  private async hearBeginning(beginning: Promise<Planned | null> | null, state: number): Promise<void> {
    const first = await beginning;
    if (first && state === this.state && !this.plan) this.plan = first.plan;
  }

  /** The page for another width of the window, once the piece has been read. */
  setPageWidth(pageWidth: number): void {
    if (pageWidth === this.pageWidth) return;
    this.pageWidth = pageWidth;
    if (this.input) void this.engrave(this.input);
  }

  /** The page for a paper, once the piece has been read; null before, and for what cannot be read. */
  async engraveCopy(
    options: Pick<CopyOptions, 'paper' | 'orientation' | 'staff'>,
  ): Promise<EngravedPage | null> {
    return this.input && startEngraver().copyPage(this.input, options);
  }

  /** Of a long piece: until there is something to see. A page that has been asked for anew meanwhile is dropped. */
  private async engrave(input: DocumentInput): Promise<void> {
    const engraver = startEngraver();
    const { pageWidth } = this;
    const asked = ++this.pagesAsked;
    const show = (page: EngravedPage | null) => {
      if (page && asked === this.pagesAsked && this.state !== Infinity) this.page = page;
    };
    if (this.page) return void engraver.page(input, pageWidth).then(show);
    // Asked for together with the whole, the beginning would not come before it.
    const beginning = await engraver.beginning(input, pageWidth);
    show(beginning);
    void engraver.page(input, pageWidth).then(show);
  }

  /** The answer, or null when something has changed since the question. */
  private async ask<T>(question: (to: Connection) => Promise<T | null>): Promise<T | null> {
    const { connection, state } = this;
    if (!connection) return null;
    let answer: T | null = null;
    await this.heard(async () => void (answer = await question(connection)));
    return state === this.state ? answer : null;
  }

  private async heard(listen: () => Promise<void>): Promise<void> {
    try {
      await listen();
    } catch (error) {
      if (this.state === Infinity) return;
      const why = error instanceof Error ? error.message : String(error);
      this.events.failed(
        `The planner could not answer (${why}). Your marks are safe; reload the page to go on.`,
      );
    }
  }
}
