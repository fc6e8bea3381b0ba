/** Lines: how strikes of one voice lead to each other. */
import type { Measure } from '../../score/model';
import type { Strike } from './strike';

/**
 * Tells each strike of a line the one before it there: the melody in its voice, and the notes of every voice without
 * a melody as far as they come one at a time.
 */
export function joinLines(strikes: readonly Strike[]): Strike[] {
  const last = new Map<string, Strike>();
  const sung = new Set(strikes.filter(({ role }) => role === 'melody').map(({ voice }) => voice));
  const isLine = ({ role, voice }: Strike) => role === 'melody' || !sung.has(voice);
  return strikes.map((strike) => {
    if (!isLine(strike)) return strike;
    const before = last.get(strike.voice);
    if (before?.onsetTicks === strike.onsetTicks) return strike;
    last.set(strike.voice, strike);
    return { ...strike, lineFrom: before?.index ?? null };
  });
}

/**
 * A pitch that comes again with the next notes of its voice, at once or within a bar, or when a chord that was struck
 * is broken, is struck again where it lies.
 * Source: handbook 13, "Grip": what comes again keeps string and finger, and a finger once down stays.
 */
export function struckAgain(strikes: readonly Strike[], measures: readonly Measure[]): Strike[] {
  const all = [...strikes];
  let grips = Math.max(0, ...strikes.map(({ grip }) => (grip ?? -1) + 1));
  for (const voice of byVoice(strikes)) {
    let [before, here]: [readonly Strike[], Strike[]] = [[], []];
    for (const strike of voice) {
      if (here[0] && here[0].onsetTicks !== strike.onsetTicks)
        [before, here] = [lyingAfter(before, here), []];
      here.push(strike);
      const prev = before.find(({ midi }) => midi === strike.midi);
      if (!prev || strike.grip !== null || strike.touch || prev.touch) continue;
      const known = all[prev.index]!;
      const soon = barEndAt(measures, barEndAt(measures, prev.onsetTicks)) > strike.onsetTicks;
      if (known.endTicks > strike.onsetTicks || !soon) continue;
      const grip = known.laidTicks < known.onsetTicks || known.grip === null ? grips++ : known.grip;
      if (known.grip === null) all[prev.index] = { ...known, grip, endTicks: strike.onsetTicks };
      else all[prev.index] = { ...known, endTicks: strike.onsetTicks };
      all[strike.index] = { ...strike, grip, continues: prev.index };
    }
  }
  return all;
}

/** What is broken of a chord leaves the rest of it lying; whatever else comes takes its place. */
function lyingAfter(before: readonly Strike[], here: readonly Strike[]): readonly Strike[] {
  const isOfChord = here.every(({ midi }) => before.some((one) => one.midi === midi));
  if (!isOfChord) return here;
  return [...here, ...before.filter(({ midi }) => here.every((one) => one.midi !== midi))];
}

export function byVoice(strikes: readonly Strike[]): readonly (readonly Strike[])[] {
  const voices = new Map<string, Strike[]>();
  for (const strike of strikes) {
    const voice = voices.get(strike.voice);
    if (voice) voice.push(strike);
    else voices.set(strike.voice, [strike]);
  }
  return [...voices.values()];
}

export function barEndAt(measures: readonly Measure[], tick: number): number {
  const measure = measures.find((one) => tick < one.startTicks + one.durationTicks);
  return measure ? measure.startTicks + measure.durationTicks : tick;
}
