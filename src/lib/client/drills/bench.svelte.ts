/** The drill bench: one drill at a time, set and fingered anew whenever a parameter changes. */
import { untrack } from 'svelte';
import { type DrillCounts, countsOf } from '$core/drills/counts';
import type { TickRange } from '$core/score/range';
import { type Chosen, type DrillKind, isChoice, type Parameter, parametersOf } from '$core/drills/drill';
import { type DrillScore, drillScore } from '$core/drills/drillScore';
import { maybeTooMuch } from '$core/drills/fits';
import { DRILL_KINDS } from '$core/drills/kinds/all';
import { pieceKindsOf } from '$core/drills/passage/pieceKinds';
import { type Passage, passageOf } from '$core/drills/passage/passage';
import type { EngravedPage } from '$core/engraving/page';
import { type Sheet, sheetOf } from '$core/engraving/sheet';
import { inkOf } from '$core/fingering/edition/registers';
import type { FingeringPlan } from '$core/fingering/report/plan';
import { editionFile } from '$core/formats/edition/editionFile';
import { inkedMarks, plainMarks } from '$core/marks/marksOf';
import type { Scripts } from '$core/practice/walk';
import type { Score } from '$core/score/model';
import { save } from '../copy/saveFile';
import { Desk } from '../desk/desk.svelte';
import type { DeskOpening } from '../desk/stored';
import { leavePlanner, startEngraver, takePlanner } from '../planner';
import { sendFile } from '../sendFile';
import type { DocumentInput } from '$workers/readInput';
import type { Roles } from '$workers/roles';

interface Fingered {
  readonly drill: DrillScore;
  readonly plan: FingeringPlan;
  readonly roles: Roles;
  readonly scripts: Scripts | null;
}

/** A part of a drill with its counts; the whole drill where it has no parts. */
export interface CountedPart {
  readonly words: string;
  readonly counts: DrillCounts;
}

/** The piece that drills are cut out of, with its plan. */
export interface SourcePiece {
  readonly pieceId: string;
  readonly score: Score;
  readonly plan: FingeringPlan;
}

export class DrillBench {
  kindId = $state<string>(DRILL_KINDS[0]!.id);
  chosen = $state.raw<Chosen>({});
  notice = $state('');
  source = $state.raw<SourcePiece | null>(null);
  /** Index of the first and the last bar that drills are cut from. */
  range = $state.raw<{ readonly first: number; readonly last: number }>({ first: 0, last: 0 });

  private readonly passage: Passage | null = $derived.by(() => {
    const { source, range } = this;
    return source ? passageOf(source.score, source.plan, range.first, range.last) : null;
  });
  readonly pieceKinds: readonly DrillKind[] = $derived(this.passage ? pieceKindsOf(this.passage) : []);
  readonly kind: DrillKind = $derived(
    [...this.pieceKinds, ...DRILL_KINDS].find(({ id }) => id === this.kindId) ?? DRILL_KINDS[0]!,
  );
  readonly drill: DrillScore = $derived(drillScore(this.kind, this.chosen));
  /** Why the hand that it is chosen for cannot play it. */
  readonly tooMuch: string | null = $derived(maybeTooMuch(this.drill));
  /** Until a piece has been read, a link to one of its drills shows nothing else. */
  reading = $state(false);

  private page = $state.raw<{ readonly drill: DrillScore; readonly page: EngravedPage } | null>(null);
  private fingered = $state.raw<Fingered | null>(null);
  private asked = 0;

  /** The engraving is shown as soon as it is there; its marks follow. */
  readonly sheet: Sheet | null = $derived.by(() => {
    if (!this.page) return null;
    return sheetOf(this.page.page, this.marks);
  });

  /** The title of what stands on the paper, which follows what is chosen. */
  get shown(): string {
    return this.page?.drill.title ?? '';
  }

  /** The plan of what is shown, with what each hand does. */
  readonly planned: Fingered | null = $derived(this.fingered?.drill === this.drill ? this.fingered : null);

  readonly counts: readonly CountedPart[] | null = $derived.by(() => {
    if (!this.planned) return null;
    const { plan, drill } = this.planned;
    const { score } = drill.document;
    const onsetOf = new Map(score.notes.map(({ uid, onsetTicks }) => [uid, onsetTicks]));
    return rangesOf(drill).map(({ words, range }) => ({
      words,
      counts: countsOf(plan, drill.player, range, (uid) => onsetOf.get(uid) ?? 0),
    }));
  });

  private get marks() {
    if (!this.fingered || this.fingered.drill !== this.page?.drill) return [];
    const { drill, plan, roles } = this.fingered;
    const ink = inkOf(drill.registers);
    return inkedMarks(plainMarks(drill.document.score, plan, new Map(roles)), ink);
  }

  /** @param wanted of a link; what there is not is as usual */
  choose(kindId: string | null, wanted: Chosen): void {
    this.kindId = kindId ?? DRILL_KINDS[0]!.id;
    this.chosen = wanted;
  }

  /** A value that the parameter has not is said, and changes nothing. */
  set(parameter: Parameter, value: string): void {
    if (!isChoice(parameter, value)) {
      this.notice = `${parameter.label}: “${value}” is not known; type ${parameter.typed?.hint ?? 'a value of the list'}.`;
      return;
    }
    this.notice = '';
    this.chosen = { ...this.chosen, [parameter.id]: value };
  }

  /** Reads a piece and its plan; the planner is free again when it is done. */
  async takePiece(opening: DeskOpening): Promise<void> {
    this.reading = true;
    const desk = new Desk(opening, false);
    await desk.open();
    const { planning } = desk;
    const stop = $effect.root(() => {
      $effect(() => {
        if (desk.refusal) this.reading = false;
        const { score, plan, busy } = planning;
        if (!score || !plan || busy) return;
        // Once: what follows must not call this again.
        untrack(() => {
          this.source = { pieceId: opening.piece.id, score, plan };
          this.setRange(this.range.first, this.range.last);
          this.reading = false;
          desk.close();
        });
        queueMicrotask(stop);
      });
    });
  }

  /** Bars by index; the other way round is put right, and what there is not is the nearest that there is. */
  setRange(first: number, last: number): void {
    const most = (this.source?.score.measures.length ?? Infinity) - 1;
    const within = (bar: number) => Math.min(most, Math.max(0, bar));
    this.range = { first: within(Math.min(first, last)), last: within(Math.max(first, last)) };
  }

  /** To be called whenever the drill has changed: answers to earlier drills are dropped. */
  async show(drill: DrillScore, pageWidth: number): Promise<void> {
    const asked = ++this.asked;
    const input = inputOf(drill);
    const planner = takePlanner(this);
    const engraver = startEngraver();
    const beginning = await engraver.beginning(input, pageWidth, firstBarsOf(drill));
    if (asked !== this.asked) return;
    if (beginning) this.page = { drill, page: beginning };
    const page = await engraver.page(input, pageWidth);
    if (asked !== this.asked) return;
    if (page) this.page = { drill, page };
    // The notation first: a planner beside it would take its core.
    await painted();
    if (asked !== this.asked) return;
    const opened = await planner.open(input);
    const planned = await planner.plan();
    if (asked !== this.asked || !opened || 'error' in opened || !planned) return;
    const shown = { drill, plan: planned.plan, roles: opened.roles };
    this.fingered = { ...shown, scripts: null };
    const scripts = await planner.scripts();
    if (asked === this.asked && scripts) this.fingered = { ...shown, scripts };
  }

  close(): void {
    this.asked = Infinity;
    leavePlanner(this);
  }

  /** As a piece of the shelf, with its fingering decided; its address when it is there. */
  async toShelf(): Promise<string | null> {
    const edition = new File([this.edition()], `${this.kind.id}.json`, { type: 'application/json' });
    const answer = await sendFile('/api/pieces', edition);
    if (answer.kind === 'refused') {
      this.notice = answer.message;
      return null;
    }
    return `/desk/${(answer.body as { readonly id: string }).id}`;
  }

  saveEdition(): void {
    save(new Blob([this.edition()], { type: 'application/json' }), `${this.drill.title}.oculon.json`);
  }

  /** What makes the same drill again. */
  get query(): Record<string, string> {
    const { source, range, kind } = this;
    const usual = new Map(parametersOf(kind).map(({ id, values }) => [id, values[0]![0]]));
    const own = Object.entries(this.drill.chosen).filter(([id, value]) => usual.get(id) !== value);
    return {
      kind: kind.id,
      ...Object.fromEntries(own),
      ...(source && { piece: source.pieceId, from: String(range.first + 1), to: String(range.last + 1) }),
    };
  }

  private edition(): string {
    const { title, text, document, registers, kind } = this.drill;
    const bytes = new TextEncoder().encode(text);
    return JSON.stringify(
      editionFile({
        title,
        score: {
          kind: 'musicxml',
          fileName: `${kind.id}.musicxml`,
          source: base64(bytes),
          document: null,
          part: 0,
          noteNames: null,
          barNames: null,
        },
        read: document.score,
        registers,
      }),
    );
  }
}

/** Bars whose notes are engraved before anybody notices: a long drill shows these first. */
const FIRST_NOTES = 32;
function firstBarsOf({ document: { score } }: DrillScore): number {
  const ends = score.measures.map(({ startTicks, durationTicks }) => startTicks + durationTicks);
  const after = (tick: number) => score.notes.filter(({ onsetTicks }) => onsetTicks < tick).length;
  return Math.max(2, ends.findIndex((end) => after(end) >= FIRST_NOTES) + 1 || ends.length);
}

/** Each part from its bar to that of the next. */
function rangesOf({
  parts,
  document,
}: DrillScore): readonly { readonly words: string; readonly range: TickRange }[] {
  const { measures } = document.score;
  if (parts.length < 2) return [{ words: '', range: { from: 0, to: Infinity } }];
  return parts.map(({ bar, words }, k) => ({
    words,
    range: {
      from: measures[bar]?.startTicks ?? 0,
      to: measures[parts[k + 1]?.bar ?? Infinity]?.startTicks ?? Infinity,
    },
  }));
}

const painted = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done)));

const inputOf = ({ text, registers }: DrillScore): DocumentInput => ({
  bytes: new TextEncoder().encode(text),
  partIndex: 0,
  uids: null,
  convertedFrom: null,
  registers: [...registers],
});

const base64 = (bytes: Uint8Array): string =>
  btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''));
