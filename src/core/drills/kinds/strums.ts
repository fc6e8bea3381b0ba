import type { EffectTag, Pluck } from '../../score/model';
import { CHORD_ROW, CHORD_SHAPES, type ChordShape, maybeChordRow } from '../chordShapes';
import type { DrillEvent, DrillKind, DrillNote } from '../drill';
import { HEALTH } from '../vocabulary';

/** A bar of strokes: how the chord is struck, how long, and what is said of it. Source: handbook 6, "Strums and effects". */
interface Stroke {
  readonly effect: EffectTag;
  readonly eighths: number;
  readonly says: string;
}
const stroke = (effect: EffectTag, eighths: number, says: string): Stroke => ({ effect, eighths, says });

const STAGES: Readonly<Record<string, readonly Stroke[]>> = {
  roll: [stroke('rollUp', 4, 'p i m a, rolled'), stroke('rollUp', 4, '')],
  strum: [stroke('brushDown', 4, 'i out'), stroke('brushUp', 4, 'i back')],
  joined: [stroke('rollUp', 4, 'roll'), stroke('brushDown', 2, 'and brush'), stroke('brushUp', 2, '')],
  out: [stroke('rasgueado', 4, 'a m i out'), stroke('rasgueado', 4, '')],
  outIn: [
    stroke('rasgueado', 4, 'a m i out'),
    stroke('brushUp', 2, 'i back'),
    stroke('brushDown', 2, 'i out'),
  ],
};
const STAGE_WORDS: Readonly<Record<string, string>> = {
  roll: 'rolled',
  strum: 'brushed out and back',
  joined: 'roll and brush joined',
  out: 'rasgueado out',
  outIn: 'rasgueado out and in',
};

export const STRUMS: DrillKind = {
  id: 'strums',
  title: 'Rolls, strums, rasgueado',
  trains: 'fingers that open across the strings one after the other, and a hand that finds its strings again',
  watch: [
    'the fingers start from the palm side by side and open one by one, each as far as the last',
    'the forearm stays where it is: the stroke is made by the fingers, the turn by the wrist',
    'afterwards one finger lands as a reference before the next single note',
  ],
  steps:
    'stage by stage: roll, brush, both joined, rasgueado out, out and in; in each the row of chords once',
  passes: [
    ['in the air, then on muted strings', 4],
    ['one finger after the other, as slow as seconds', 4],
    ['joined, without getting louder', 2],
  ],
  caution: HEALTH.speed,
  ladder: [60, 66, 72, 80, 88, 96],
  parameters: [
    {
      id: 'stage',
      label: 'Stage',
      values: [
        ['roll,strum,joined,out,outIn', 'all, built up slowly'],
        ['roll', 'rolls alone'],
        ['strum', 'brushes alone'],
        ['joined', 'roll and brush joined'],
        ['out', 'rasgueado out'],
        ['outIn', 'rasgueado out and in'],
      ],
    },
    { ...CHORD_ROW, values: [['E,Am', 'E, Am'], ...CHORD_ROW.values] },
  ],
  make: ({ stage, chords }) => {
    const stages = stage!.split(',');
    const events = stages.flatMap((one) =>
      maybeChordRow(chords!)!.flatMap((name, k) =>
        barOf(STAGES[one]!, CHORD_SHAPES[name]!, k === 0 && stages.length > 1 ? STAGE_WORDS[one]! : null),
      ),
    );
    return { voices: [events], fifths: 0, metre: { beats: 4, beatType: 4 } };
  },
};

const barOf = (strokes: readonly Stroke[], shape: ChordShape, words: string | null): readonly DrillEvent[] =>
  strokes.map(({ effect, eighths, says }, k) => ({
    notes: chordOf(shape, effect),
    eighths,
    effect,
    ...(says && { says }),
    ...(k === 0 && words !== null && { begins: { words } }),
  }));

const ROLLED: readonly Pluck[] = ['p', 'i', 'm', 'a'];

/** From the bass up; a roll has a finger for each string and takes the bass and the three trebles. */
function chordOf({ bass, places }: ChordShape, effect: EffectTag): readonly DrillNote[] {
  const roll = effect === 'rollUp';
  const strings = roll ? [bass, 3, 2, 1] : [6, 5, 4, 3, 2, 1].filter((string) => string <= bass);
  return strings.map((string, k) => ({
    ...places.find((place) => place.string === string)!,
    letter: roll ? ROLLED[k]! : effect === 'rasgueado' ? 'a' : 'i',
  }));
}
