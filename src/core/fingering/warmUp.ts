/**
 * An invented étude for planning before anything is asked: the machine compiles what runs often, so that the first piece
 * that is opened is planned as fast as every later one. It comes in short parts, so that whoever asks meanwhile does not
 * wait for long.
 */
import { DEFAULT_PLAYER } from '../instrument/hands';
import type { Measure, Score, ScoreNote } from '../score/model';
import { spellMidi } from '../music/pitchText';
import { Planner } from './planner';

const BARS = 6;
const EIGHTHS = 8;

/** How many different parts there are; each makes the next plan faster. */
export const WARM_UPS = 16;
/** So many of them in a row go up by a semitone each. */
const KEYS = 4;

/** A tune that climbs and falls over basses of half notes. Ticks are eighths. */
export function warmUpScore(part = 0): Score {
  const higher = part % KEYS;
  const first = EIGHTHS * BARS * Math.floor(part / KEYS);
  const tune = Array.from({ length: EIGHTHS * BARS }, (_, onset) => ({
    midi: 60 + higher + tuneAt(first + onset),
    onset,
    length: 1,
    voice: '1',
  }));
  const basses = Array.from({ length: 2 * BARS }, (_, k) => ({
    midi: higher + [40, 45, 48, 43, 41, 47, 50][(first + 3 * k) % 7]!,
    onset: 4 * k,
    length: 4,
    voice: '2',
  }));
  const notes = [...tune, ...basses]
    .sort((a, b) => a.onset - b.onset || a.midi - b.midi)
    .map(({ midi, onset, length, voice }, k): ScoreNote => ({
      uid: `n${k + 1}`,
      sourceId: null,
      measureIndex: Math.floor(onset / EIGHTHS),
      voice,
      onsetTicks: onset,
      durationTicks: length,
      pitch: spellMidi(midi, 0),
      soundingMidi: midi,
      tiedUids: [],
      printed: { finger: null, string: null, pluck: null },
      grace: null,
      harmonic: null,
      tags: [],
      mustRing: false,
      leftOut: false,
    }));
  return { ...EMPTY, notes };
}

const tuneAt = (k: number) => [0, 2, 4, 5, 7, 9, 7, 5, 4, 2][(k * (1 + (k >> 5))) % 10]!;

const NO_JUMPS = { segno: false, coda: false, toCoda: false, daCapo: false, dalSegno: false, fine: false };

const EMPTY: Omit<Score, 'notes'> = {
  title: '',
  partName: '',
  transposedBy: 0,
  ticksPerQuarter: 2,
  tuningId: 'standard',
  capo: 0,
  measures: Array.from({ length: BARS }, (_, index): Measure => ({
    uid: `b${index + 1}`,
    index,
    number: String(index + 1),
    startTicks: EIGHTHS * index,
    durationTicks: EIGHTHS,
    nominalTicks: EIGHTHS,
    repeatStart: false,
    repeatEnd: false,
    repeatTimes: 2,
    ending: null,
    endingStops: false,
    jumps: NO_JUMPS,
    sectionEnd: false,
  })),
  slurs: [],
  ligados: [],
  slides: [],
  keys: [],
  metres: [],
  tempos: [{ tick: 0, quartersPerMinute: 90, assumed: true }],
  directions: [],
  assumptions: [],
  notices: [],
};

/** `n`: from 0 on; each number plans other music. */
export function warmUp(n: number): void {
  new Planner(warmUpScore(n), DEFAULT_PLAYER.fretboard, DEFAULT_PLAYER.hand).plan(new Map());
}
