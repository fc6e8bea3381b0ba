/**
 * Beams of a voice in one bar: eighths and shorter notes of one beat go together, in simple metres eighths alone of half a
 * bar. Source: common practice of engraving; MusicXML 4.0, `beam`.
 */
import type { WrittenEvent } from './writtenMusic';

const NEAR = 1e-9;
const LEVELS: Readonly<Record<string, number>> = { eighth: 1, '16th': 2, '32nd': 3, '64th': 4 };

export interface Metre {
  readonly beats: number;
  readonly beatType: number;
}

/** By event: what is written of each level of beams, "" where there is none. */
export function beamsOf(events: readonly WrittenEvent[], metre: Metre): readonly string[] {
  const levels = events.map((event) =>
    event.pitches.length === 0 || event.grace ? 0 : (LEVELS[event.type ?? ''] ?? 0),
  );
  const groups = groupsOf(events, levels, metre);
  return events.map((_, k) =>
    Array.from({ length: levels[k]! }, (_unused, level) => beamAt(k, level + 1, levels, groups)).join(''),
  );
}

function beamAt(k: number, level: number, levels: readonly number[], groups: readonly number[]): string {
  const joins = (other: number) =>
    groups[other] === groups[k] && groups[k] !== -1 && (levels[other] ?? 0) >= level;
  const [before, after] = [joins(k - 1), joins(k + 1)];
  const isGrouped = groups[k] !== -1 && (groups[k - 1] === groups[k] || groups[k + 1] === groups[k]);
  const hook =
    level > 1 && isGrouped ? (groups[k - 1] === groups[k] ? 'backward hook' : 'forward hook') : null;
  const word = before && after ? 'continue' : before ? 'end' : after ? 'begin' : hook;
  return word === null ? '' : `<beam number="${level}">${word}</beam>`;
}

/** By event: which group it belongs to, −1 for what has no beam. */
function groupsOf(
  events: readonly WrittenEvent[],
  levels: readonly number[],
  metre: Metre,
): readonly number[] {
  const starts: number[] = [];
  let at = 0;
  for (const { quarters, grace } of events) {
    // Thirds do not add up to whole numbers.
    starts.push(at + NEAR);
    if (!grace) at += quarters.num / quarters.den;
  }
  const { beat, half } = windows(metre);
  const isPlain = (window: number) =>
    events.every(
      (_, k) => Math.floor(starts[k]! / half) !== window || (levels[k]! <= 1 && !events[k]!.tuplet),
    );
  let group = 0;
  return events.map((_, k) => {
    if (levels[k] === 0) return -1;
    const window = Math.floor(starts[k]! / half);
    const length = isPlain(window) ? half : beat;
    const isJoined =
      k > 0 && levels[k - 1]! > 0 && Math.floor(starts[k - 1]! / length) === Math.floor(starts[k]! / length);
    if (!isJoined) group++;
    return group;
  });
}

/** In quarters: a beat, and what eighths alone are joined over. */
function windows({ beats, beatType }: Metre): { readonly beat: number; readonly half: number } {
  const unit = 4 / beatType;
  if (beatType >= 8 && beats % 3 === 0) return { beat: 3 * unit, half: 3 * unit };
  return { beat: unit, half: beats % 2 === 0 && unit === 1 ? 2 : unit };
}
