/**
 * Ways to play any row of strokes otherwise: in another rhythm, with other accents, damped, with a plectrum. A kind that
 * lists one of these parameters gets it; nothing else is needed. Source: handbook 9, "accents and metre", "rhythms".
 */
import type { Chosen, DrillEvent, DrillMusic, Parameter } from './drill';

export const RHYTHM: Parameter = {
  id: 'rhythm',
  label: 'Rhythm',
  values: [
    ['even', 'even'],
    ['dotted', 'long, short'],
    ['reversed', 'short, long'],
  ],
};

export const ACCENTS: Parameter = {
  id: 'accents',
  label: 'Accents',
  values: [
    ['none', 'none'],
    ['2', 'every second'],
    ['3', 'every third'],
    ['4', 'every fourth'],
  ],
};

export const SOUND: Parameter = {
  id: 'sound',
  label: 'Sound',
  values: [
    ['ringing', 'ringing'],
    ['muted', 'muted'],
  ],
};

export const PICK: Parameter = {
  id: 'pick',
  label: 'Played with',
  values: [
    ['fingers', 'the fingers'],
    ['plectrum', 'a plectrum, swept where the string changes'],
    ['plectrum-strict', 'a plectrum, down and up by the beat'],
  ],
};

const RATIOS: Readonly<Record<string, readonly [number, number]>> = {
  dotted: [1.5, 0.5],
  reversed: [0.5, 1.5],
};

/** Only neighbours of one eighth each are made unequal: their sum stays. */
function inRhythm(
  events: readonly DrillEvent[],
  ratio: readonly [number, number] | undefined,
): readonly DrillEvent[] {
  if (!ratio) return events;
  const result: DrillEvent[] = [];
  for (let k = 0; k < events.length; k++) {
    const [first, second] = [events[k]!, events[k + 1]];
    if (first.eighths !== 1 || second?.eighths !== 1 || second.begins) result.push(first);
    else {
      result.push({ ...first, eighths: ratio[0] }, { ...second, eighths: ratio[1] });
      k++;
    }
  }
  return result;
}

/** Counted in strokes from the beginning of each part. */
function accented(events: readonly DrillEvent[], every: number): readonly DrillEvent[] {
  if (!every) return events;
  let stroke = 0;
  return events.map((event) => {
    if (event.begins) stroke = 0;
    if (event.notes.length === 0) return event;
    return stroke++ % every === 0 ? { ...event, accented: true } : event;
  });
}

const muted = (events: readonly DrillEvent[]): readonly DrillEvent[] =>
  events.map((event, k) => ({
    ...event,
    choked: true,
    ...(k === 0 && !event.says && { says: 'muted' }),
  }));

const unlettered = (events: readonly DrillEvent[]): readonly DrillEvent[] =>
  events.map((event) => ({ ...event, notes: event.notes.map((note) => ({ ...note, letter: null })) }));

/** The music as the chosen treatments have it. */
export function treated(music: DrillMusic, chosen: Chosen): DrillMusic {
  const { rhythm, accents, sound, pick } = chosen;
  const isPicked = pick === 'plectrum' || pick === 'plectrum-strict';
  const treat = (events: readonly DrillEvent[]) => {
    const timed = accented(inRhythm(events, RATIOS[rhythm ?? '']), Number(accents) || 0);
    const sounding = sound === 'muted' ? muted(timed) : timed;
    return isPicked ? unlettered(sounding) : sounding;
  };
  return {
    ...music,
    voices: music.voices.map(treat),
    ...(isPicked && { settings: { ...music.settings, rightSchool: pick } }),
  };
}
