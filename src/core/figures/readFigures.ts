/** Reads a piece into figures, voice by voice. Source: handbook 13. */
import type { NotatedPiece } from '../fingering/problem/problem';
import { evidenceOf, type ReadTexture, SLOW_MS, TREMOLO_MS } from './evidence';
import type { Figure, FigureRule } from './figure';
import { textureSpansOf, type TextureSpan } from './segment';
import type { Texture } from './texture';
import type { NoteHand } from './thumb';
import { isSingle, lowest, type Voice, type VoiceEvent } from './voices';

/** Below this margin nothing speaks clearly enough. From memory. */
const LEAST_MARGIN = 0.12;

export interface ReadingContext {
  readonly problem: NotatedPiece;
  readonly hands: readonly NoteHand[];
  /** By moment. */
  readonly onBeat: readonly boolean[];
  readonly strummed: readonly boolean[];
}

export function readVoice(context: ReadingContext, voice: Voice): readonly Figure[] {
  const { events } = voice;
  if (events.length === 0) return [];
  const struck = strikesByMoment(context.problem, voice);
  const answered = (n: number) => struck(events[n]!.moment, events[n + 1]!.moment) > 0;
  const evidence = evidenceOf(voice, answered, context.problem.tuning);
  const onBeat = events.map(({ moment }) => context.onBeat[moment]!);
  const spans = withEnds(joined(textureSpansOf(evidence, onBeat)));
  return tremolosJoined(spans.map((span) => figureOf(context, voice, span, struck)));
}

/** What is read as a pedal at first and then as a tremolo is one tremolo: cut, its groups would change their order. */
function tremolosJoined(figures: readonly Figure[]): readonly Figure[] {
  const result: Figure[] = [];
  for (const figure of figures) {
    const last = result.at(-1);
    if (last?.texture === 'tremolo' && figure.texture === 'tremolo')
      result[result.length - 1] = {
        ...last,
        toMoment: figure.toMoment,
        strikes: [...last.strikes, ...figure.strikes],
        margin: Math.max(last.margin, figure.margin),
      };
    else result.push(figure);
  }
  return result;
}

/** How many events other voices have between two moments. */
function strikesByMoment({ strikes, moments }: NotatedPiece, voice: Voice) {
  const others = moments.map(({ struck }) =>
    struck.some((one) => strikes[one]!.voice !== voice.name) ? 1 : 0,
  );
  return (from: number, to: number) => others.slice(from + 1, to).reduce((sum: number, one) => sum + one, 0);
}

/** A phrase that ends is not the end of its texture: spans of one kind that a break divides are one figure. */
function joined(spans: readonly TextureSpan[]): readonly TextureSpan[] {
  const result: TextureSpan[] = [];
  for (const span of spans) {
    const last = result.at(-1);
    const lone = span.from === span.to;
    if (last && (last.texture === span.texture || lone)) {
      result[result.length - 1] = { ...last, to: span.to, margin: Math.max(last.margin, span.margin) };
    } else result.push(span);
  }
  return result;
}

/** An upbeat of one or two notes belongs to what follows it, and so does a tail to what comes before. Source: handbook, "Upbeats join". */
function withEnds(spans: readonly TextureSpan[]): readonly TextureSpan[] {
  const isShort = (span: TextureSpan | undefined) => span !== undefined && span.to - span.from <= 1;
  const [first, second] = spans;
  const joint = isShort(first) && second ? [{ ...second, from: first!.from }, ...spans.slice(2)] : [...spans];
  const [before, last] = joint.slice(-2);
  return joint.length > 1 && isShort(last) ? [...joint.slice(0, -2), { ...before!, to: last!.to }] : joint;
}

function figureOf(
  context: ReadingContext,
  voice: Voice,
  span: TextureSpan,
  struck: (from: number, to: number) => number,
): Figure {
  const events = voice.events.slice(span.from, span.to + 1);
  const named = nameOf(context, events, span, struck);
  return {
    voice: voice.name,
    ...named,
    fromMoment: events[0]!.moment,
    toMoment: events.at(-1)!.moment,
    strikes: events.flatMap(({ strikes }) => strikes.map(({ index }) => index)),
    margin: Math.round(span.margin * 100) / 100,
  };
}

function nameOf(
  { problem, hands, strummed }: ReadingContext,
  events: readonly VoiceEvent[],
  { texture, margin }: TextureSpan,
  struck: (from: number, to: number) => number,
): { readonly texture: Texture; readonly rule: FigureRule } {
  if (
    events.some(({ moment }) => strummed[moment]) &&
    events.filter((event) => !isSingle(event)).every(({ moment }) => strummed[moment])
  )
    return { texture: 'strum', rule: 'marked' };
  if (isTremolo(events, struck)) return { texture: 'tremolo', rule: 'tremolo' };
  if (texture === 'tremolo') return { texture: 'line', rule: 'again' };
  if (texture === 'chords' && isAfterbeats(problem, hands, events))
    return { texture: 'afterbeats', rule: 'afterBass' };
  if (margin < LEAST_MARGIN && events.length > 2) return { texture: 'mixed', rule: 'unclear' };
  if (texture === 'line' && meanGapMs(events) >= SLOW_MS) return { texture: 'slowMelody', rule: 'slow' };
  return { texture, rule: RULES[texture] };
}

const RULES: Readonly<Record<ReadTexture, FigureRule>> = {
  line: 'steps',
  brokenChord: 'leaps',
  tremolo: 'tremolo',
  chords: 'together',
  parallels: 'sameForm',
  pedal: 'pedal',
};

/**
 * One pitch two or three times and more in a row, quickly, each row after a note of another voice; in one voice alone
 * after a single note of another pitch.
 */
function isTremolo(events: readonly VoiceEvent[], struck: (from: number, to: number) => number): boolean {
  let again = 0;
  let runs = 0;
  let rows = 0;
  let alone = 0;
  for (let n = 1; n < events.length; n++) {
    const [a, b, c] = [events[n - 1]!, events[n]!, events[n + 1]];
    if (repeats(a, b) && struck(a.moment, b.moment) === 0) {
      again++;
      if (!c || !repeats(b, c) || struck(b.moment, c.moment) > 0) runs++;
    } else if (struck(a.moment, b.moment) > 0) rows++;
    else if (!repeats(a, b) && (!c || !repeats(b, c))) alone++;
  }
  rows += alone;
  return (
    rows >= 2 && rows + 1 >= runs * 0.7 && again >= rows * 0.8 && again >= (events.length - 1 - alone) * 0.4
  );
}

const repeats = (a: VoiceEvent, b: VoiceEvent) =>
  isSingle(a) && isSingle(b) && lowest(a) === lowest(b) && b.timeMs - a.timeMs <= TREMOLO_MS;

/** Chords that come after their bass and not with it. */
function isAfterbeats(
  { moments }: NotatedPiece,
  hands: readonly NoteHand[],
  events: readonly VoiceEvent[],
): boolean {
  const chords = events.filter((event) => !isSingle(event));
  const after = chords.filter(({ moment }) => {
    const isBass = (k: number) => moments[k]?.struck.some((strike) => hands[strike] === 'thumb') ?? false;
    return !isBass(moment) && (isBass(moment - 1) || isBass(moment - 2) || isBass(moment - 3));
  });
  return after.length >= 2 && after.length >= chords.length * 0.5;
}

function meanGapMs(events: readonly VoiceEvent[]): number {
  if (events.length < 2) return Infinity;
  const gaps = events
    .slice(1)
    .map((event, n) => event.timeMs - events[n]!.timeMs)
    .sort((a, b) => a - b);
  return gaps[Math.floor(gaps.length / 2)]!;
}
