/** Which bars are the same music: exactly, moved to another pitch, or varied. */
import { fraction, fractionText } from '../music/fraction';
import type { Score } from '../score/model';

export interface BarKind {
  /** The first bar of its family. */
  readonly like: number;
  readonly relation: 'new' | 'exact' | 'transposed' | 'varied';
  /** Semitones from that bar, for a transposed one. */
  readonly semitones: number;
}

interface Token {
  readonly at: string;
  readonly midi: number;
}

/** Bars that share at least so much of their notes are a variation. From memory. */
const VARIED_SHARE = 0.6;

export function barKinds(score: Score): readonly BarKind[] {
  const bars = tokensByBar(score);
  const kinds: BarKind[] = [];
  const exact = new Map<string, number>();
  const shapes = new Map<string, number>();
  bars.forEach((tokens, bar) => {
    const text = tokens.map((token) => `${token.at}:${token.midi}`).join(' ');
    const low = Math.min(...tokens.map((token) => token.midi));
    const shape = tokens.map((token) => `${token.at}:${token.midi - low}`).join(' ');
    const same = exact.get(text);
    const moved = tokens.length > 1 ? shapes.get(shape) : undefined;
    if (same !== undefined)
      kinds.push({
        like: family(kinds, same),
        relation: sameAs(kinds, same),
        semitones: kinds[same]?.semitones ?? 0,
      });
    else if (moved !== undefined) {
      const semitones = low - Math.min(...bars[moved]!.map((token) => token.midi));
      kinds.push({ like: moved, relation: 'transposed', semitones });
    } else kinds.push(variedOf(bars, kinds, bar) ?? { like: bar, relation: 'new', semitones: 0 });
    if (same === undefined) exact.set(text, bar);
    if (!shapes.has(shape) && kinds[bar]!.relation === 'new') shapes.set(shape, bar);
  });
  return kinds;
}

const family = (kinds: readonly BarKind[], bar: number) => kinds[bar]!.like;

const sameAs = (kinds: readonly BarKind[], bar: number): BarKind['relation'] => {
  const first = kinds[bar]!.relation;
  return first === 'new' ? 'exact' : first;
};

function variedOf(
  bars: readonly (readonly Token[])[],
  kinds: readonly BarKind[],
  bar: number,
): BarKind | null {
  let best = -1;
  let bestShare = VARIED_SHARE;
  for (let other = 0; other < bar; other++) {
    if (kinds[other]!.relation !== 'new') continue;
    const share = sharedShare(bars[other]!, bars[bar]!);
    if (share > bestShare) [best, bestShare] = [other, share];
  }
  return best < 0 ? null : { like: best, relation: 'varied', semitones: 0 };
}

/** Share of the notes of the fuller of two bars that both have at the same place and pitch. */
export function sharedShare(a: readonly Token[], b: readonly Token[]): number {
  const left = new Set(a.map((token) => `${token.at.split('+')[0]}:${token.midi}`));
  const both = b.filter((token) => left.has(`${token.at.split('+')[0]}:${token.midi}`)).length;
  return both / Math.max(1, a.length, b.length);
}

/** Notes by place and length in the bar; ties over the bar line count where they begin. */
export function tokensByBar(score: Score): readonly (readonly Token[])[] {
  const bars: Token[][] = score.measures.map(() => []);
  const text = (ticks: number) => fractionText(fraction(ticks, score.ticksPerQuarter));
  for (const note of score.notes) {
    const start = score.measures[note.measureIndex]!.startTicks;
    bars[note.measureIndex]!.push({
      at: `${text(note.onsetTicks - start)}+${text(note.durationTicks)}`,
      midi: note.soundingMidi,
    });
  }
  return bars;
}

/** How many bars have to be learnt: families with each variation counted, but no exact or transposed return. */
export const distinctBars = (kinds: readonly BarKind[]): number =>
  kinds.filter((kind) => kind.relation === 'new' || kind.relation === 'varied').length;
