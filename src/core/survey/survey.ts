/** The survey of a piece: what a teacher sees before the first finger is written. Source: handbook, "The job". */
import type { FingeringPlan } from '../fingering/report/plan';
import { tuningOrThrow } from '../instrument/tuning';
import type { BarCorrection } from '../score/corrections';
import type { Score } from '../score/model';
import { type Chord, chordName, maybeChord, maybeChordOf } from './chords';
import { functionOf } from './functions';
import { fifthsOf, keyAreas, type KeyArea, keyAt } from './keyAreas';
import { type Phrase, phrasesOf } from './phrases';
import { playOrder } from './playOrder';
import { type BarKind, barKinds, distinctBars } from './sameMusic';
import { maybeShapeBehind } from './shapes';
import { type TechniqueCount, techniquesOf } from './techniques';

export interface SurveyedBar {
  readonly uid: string;
  readonly number: string;
  readonly kind: BarKind;
  /** Null for a bar without a chord. */
  readonly chord: string | null;
  /** The teacher's word. */
  readonly chordCorrected: boolean;
  readonly function: string | null;
  readonly shape: string | null;
  /** Efforts in tenths of a point; null until planned. */
  readonly effort: { readonly left: number; readonly right: number } | null;
}

export interface SurveyedVoice {
  readonly name: string;
  readonly notes: number;
  readonly lowestMidi: number;
  readonly highestMidi: number;
}

export interface Survey {
  readonly keys: readonly KeyArea[];
  readonly voices: readonly SurveyedVoice[];
  readonly bars: readonly SurveyedBar[];
  readonly phrases: readonly Phrase[];
  readonly distinctBars: number;
  /** Bars as played, with repeats and jumps. */
  readonly playedBars: number;
  readonly techniques: readonly TechniqueCount[];
}

export function surveyOf(
  score: Score,
  corrections: ReadonlyMap<string, BarCorrection>,
  plan: FingeringPlan | null,
): Survey {
  const keys = keyAreas(score);
  const kinds = barKinds(score);
  const letters = new Map(
    [...corrections].flatMap(([uid, one]) => (one.form ? [[uid, one.form] as const] : [])),
  );
  return {
    keys,
    voices: voicesOf(score),
    bars: score.measures.map((measure, bar) => {
      const corrected = corrections.get(measure.uid)?.chord ?? null;
      const chord = corrected === null ? maybeChordOf(score, bar) : maybeChord(corrected);
      const effort = plan?.effortByBar[bar] ?? null;
      return {
        uid: measure.uid,
        number: measure.number,
        kind: kinds[bar]!,
        chordCorrected: corrected !== null,
        effort,
        ...chordWords(score, bar, chord, corrected, keyAt(keys, bar)),
      };
    }),
    phrases: phrasesOf(score, kinds, letters),
    distinctBars: distinctBars(kinds),
    playedBars: playOrder(score.measures).length,
    techniques: techniquesOf(score, plan),
  };
}

function chordWords(
  score: Score,
  bar: number,
  chord: Chord | null,
  corrected: string | null,
  key: KeyArea | null,
) {
  if (!chord) return { chord: corrected, function: null, shape: null };
  const flats = key !== null && fifthsOf(key.tonic, key.mode === 'major') < 0;
  const midis = [
    ...new Set(score.notes.filter((note) => note.measureIndex === bar).map((note) => note.soundingMidi)),
  ];
  const shape = maybeShapeBehind(chord, midis, tuningOrThrow(score.tuningId));
  return {
    chord: corrected ?? chordName(chord, flats),
    function: key ? functionOf(chord, key) : null,
    shape: shape?.name ?? null,
  };
}

function voicesOf(score: Score): readonly SurveyedVoice[] {
  const names = [...new Set(score.notes.map((note) => note.voice))].sort();
  return names.map((name) => {
    const midis = score.notes.filter((note) => note.voice === name).map((note) => note.soundingMidi);
    return { name, notes: midis.length, lowestMidi: Math.min(...midis), highestMidi: Math.max(...midis) };
  });
}
