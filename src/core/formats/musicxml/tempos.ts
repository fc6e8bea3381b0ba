/** The tempo marks of a part, and one for a part that has none. */
import type { TempoMark } from '../../music/tempo';
import type { MetreMark } from '../../score/model';
import type { PartEvents } from './readEvents';

/** `first` in quarters per minute replaces the tempo at the beginning; later ones keep their ratio to it. */
export function temposOf(events: PartEvents, first: number | undefined): TempoMark[] {
  // A number at the same place stands over words.
  const numbered = new Set(events.tempos.filter((mark) => mark.word === null).map((mark) => mark.tick));
  const given = events.tempos
    .filter((mark) => mark.word === null || !numbered.has(mark.tick))
    .sort((a, b) => a.tick - b.tick);
  const marks = new Map<number, TempoMark>();
  if (given.length === 0) {
    marks.set(0, { tick: 0, quartersPerMinute: assumedTempo(events), assumed: true });
  }
  for (const [k, mark] of given.entries()) {
    // A first mark that stands a little late holds from the beginning.
    const tick = k === 0 ? 0 : mark.tick;
    marks.set(tick, { tick, quartersPerMinute: mark.quartersPerMinute, assumed: mark.word !== null });
  }
  const list = [...marks.values()];
  if (first === undefined) return list;
  const ratio = first / list[0]!.quartersPerMinute;
  return list.map((mark) => ({
    ...mark,
    quartersPerMinute: mark.quartersPerMinute * ratio,
    assumed: false,
  }));
}

/**
 * A moderate tempo for a file that names none: 88 quarters a minute (56 dotted quarters in compound time),
 * slower where the common short note would then come faster than 6 a second. Common practice, from memory.
 */
function assumedTempo(events: PartEvents): number {
  const metre: MetreMark = events.metres[0] ?? { tick: 0, beats: 4, beatType: 4 };
  const compound = metre.beatType === 8 && metre.beats % 3 === 0;
  const moderate = compound ? 84 : 88;
  const lengths = events.notes.map((note) => note.durationTicks).filter((ticks) => ticks > 0);
  lengths.sort((a, b) => a - b);
  const short = lengths[Math.floor(lengths.length / 4)] ?? events.ticksPerQuarter;
  const fastest = (6 * 60 * short) / events.ticksPerQuarter;
  return Math.max(40, Math.min(moderate, Math.round(fastest / 4) * 4));
}
