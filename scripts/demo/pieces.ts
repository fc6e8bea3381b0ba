/**
 * The demo's pieces, composed for Oculon. Pitches sound as written here; lengths are w h q e s with dots and
 * stay until the next one; `r` rests, `x` is silent without a sign, `[ ]` is a chord, `( )` a slur, `|` a bar line.
 */

export interface DemoPiece {
  readonly file: string;
  readonly title: string;
  readonly fifths: number;
  readonly mode: 'major' | 'minor';
  readonly beats: number;
  readonly beatType: number;
  /** In quarter notes; eighths are beamed by this. */
  readonly beatQuarters: number;
  readonly quartersPerMinute: number;
  readonly upbeat: boolean;
  readonly voices: readonly string[];
}

/** Three notes up and down after the bass, as a bar of six eighths. */
const figures = (...shapes: readonly string[]) =>
  shapes.map((shape) => {
    const [low, middle, top] = shape.split(' ');
    return `re ${low}e ${middle} ${top} ${middle} ${low}`;
  });

const DANCE_OPENING = 'G4q. F#4e G4q | D4h B3q | E4q. D4e C4q | B3h D4q | C4q. D4e E4q | D4q C4 B3';

/** Beats of a bar: a rest for the thumb's note, then one pitch three times. */
const tremolo = (...bars: readonly string[]) =>
  bars.map((bar) =>
    bar
      .split(' ')
      .map((pitch) => `rs ${pitch}s ${pitch} ${pitch}`)
      .join(' '),
  );

/** A bar of eighths after the bass: low, middle, top, middle, low, middle, top of a chord. */
const rocking = (...shapes: readonly string[]) =>
  shapes.map((shape) => {
    const [low, middle, top] = shape.split(' ');
    return `re ${low}e ${middle} ${top} ${middle} ${low} ${middle} ${top}`;
  });

/** A chord that comes again on the three eighths after the tune's note. */
const again = (...chords: readonly string[]) => chords.map((chord) => `xe [${chord}]e [${chord}] [${chord}]`);

const FERRY_OPENING = 'E4h. | F#4h E4q | E4h D4q | C#4h.';
const FERRY_AFTERBEATS = 'xq [A3 C#4]q [A3 C#4] | xq [A3 D4] [A3 D4] | xq [G#3 B3] G#3 | xq A3 A3';

export const DEMO_PIECES: readonly DemoPiece[] = [
  {
    file: 'mill-bridge-dance',
    title: 'Mill Bridge Dance',
    fifths: 1,
    mode: 'major',
    beats: 3,
    beatType: 4,
    beatQuarters: 1,
    quartersPerMinute: 112,
    upbeat: true,
    voices: [
      `D4q | ${DANCE_OPENING} | A3q. B3e C4q | B3h D4q |
       G4q. A4e B4q | B4q A4 G4 | A4q. G4e E4q | G4h E4q | F#4q. G4e A4q | A4q F#4 D4 | G4q. F#4e E4q | D4h D4q |
       ${DANCE_OPENING} | C4q. B3e A3q | G3h`,
      `rq | G2h. | B2 | C3 | G2 | A2 | B2 | D3 | G2 |
       E2 | E2 | A2 | E3 | D3 | F#2 | A2 | D3 |
       G2 | B2 | C3 | G2 | A2 | B2 | D3 | G2h`,
    ],
  },
  {
    file: 'lantern-stairs',
    title: 'Lantern Stairs',
    fifths: 0,
    mode: 'minor',
    beats: 6,
    beatType: 8,
    beatQuarters: 1.5,
    quartersPerMinute: 90,
    upbeat: false,
    voices: [
      [
        ...figures(
          'A3 C4 E4',
          'G3 C4 E4',
          'A3 D4 F4',
          'G#3 B3 E4',
          'C4 E4 A4',
          'D4 F4 B4',
          'E4 A4 C5',
          'D4 F4 B4',
        ),
        ...figures('C4 E4 A4', 'C4 F4 A4', 'B3 D4 G4', 'A3 C4 F4', 'G#3 B3 E4', 'A3 C4 E4', 'G#3 D4 E4'),
        '[A3 C4 E4]q. rq.',
        ...figures('C4 E4 A4', 'D4 F4 B4', 'E4 A4 C5', 'F4 A4 D5', 'E4 G#4 D5', 'E4 A4 C5', 'D4 G#4 B4'),
        '[E4 A4 C5]h.',
      ].join(' | '),
      'A2h. | A2 | A2 | A2 | A2 | A2 | A2 | A2 | A2 | A2 | A2 | A2 | E2 | E2 | E2 | A2 | A2 | A2 | A2 | A2 | E2 | A2 | E2 | A2',
    ],
  },
  {
    file: 'slow-window',
    title: 'Slow Window',
    fifths: 1,
    mode: 'minor',
    beats: 4,
    beatType: 4,
    beatQuarters: 1,
    quartersPerMinute: 63,
    upbeat: false,
    voices: [
      `G4h. F#4q | E4h. D4q | C4h. B3q | D#4h F#4 | E4h. F#4q | G4h. A4q | B4h A4q G4 | F#4w |
       G4h. E4q | E4h C4 | F#4h. G4q | G4w | E4h. G4q | F#4h E4 | D#4h. F#4q | E4w`,
      `xq G3 B3 G3 | xq G3 C4 G3 | xq E3 A3 E3 | xq A3 B3 A3 | xq B3 G3 B3 | xq B3 D4 B3 | xq G3 B3 B3 | xq A3 D4 A3 |
       xq C4 G3 C4 | xq A3 E3 A3 | xq A3 C4 A3 | xq B3 D4 B3 | xq G3 C4 G3 | xq C4 A3 C4 | xq A3 F#3 A3 | xq B3 G3h`,
      'E2w | C3 | A2 | B2 | E2 | G2 | E2 | D3 | C3 | A2 | D3 | G2 | C3 | A2 | B2 | E2',
    ],
  },
  {
    file: 'weir-etude',
    title: 'Weir Étude',
    fifths: 0,
    mode: 'minor',
    beats: 2,
    beatType: 4,
    beatQuarters: 1,
    quartersPerMinute: 84,
    upbeat: false,
    voices: [
      `A3s B3 (C4 D4) E4 D4 C4 B3 | A3s C4 E4 A4 G4 F4 E4 D4 | C4s D4 E4 (F4 G4) F4 E4e | C4s E4 G4 C5 B4 A4 G4 F4 |
       E4s F4 G4 (B4 A4) G4 E4e | E4s D4 C4 B3 A3 G#3 A3 B3 | C4s A3 F3 D3 B3 G#3 E3 B2 | A2s C3 E3 A3 C4 B3 A3 G3 |
       F3s A3 C4 F4 E4 D4 C4 B3 | G3s B3 D4 G4 F4 E4 D4 C4 | A3s C4 E4 A4 G4 F4 E4 D4 | B3s D4 G4 B4 A4 G4 F4 E4 |
       C5s (B4 A4) G4 F4 D4 E4e | B3s A3 G3 F3 E3 D3 C3 B2 | A2s B2 C3 D3 E3 F3 G3 A3 | B3s C4 D4 F4 E4e G#4s B4 |
       C5s A4 E4 C4 B4 G#4 E4 B3 | A4s E4 C4 A3 G#3 B3 E4 G#4 | A4s G4 F4 E4 D4 C4 B3 G#3 | A3q A2`,
    ],
  },
  {
    file: 'late-ferry',
    title: 'Late Ferry',
    fifths: 3,
    mode: 'major',
    beats: 3,
    beatType: 4,
    beatQuarters: 1,
    quartersPerMinute: 88,
    upbeat: false,
    voices: [
      `${FERRY_OPENING} | F#4h A4q | G#4h F#4q | F#4h D4q | E4h. |
       xq [C#4 E4] [C#4 E4] | xq [B3 E4] [B3 E4] | xq [D4 F#4] [D4 F#4] | xq E4 E4 |
       xq F#4 F#4 | xq [D4 E4] E4 | xq [B3 F#4] [B3 F#4] | xq [B3 E4] [B3 E4] |
       ${FERRY_OPENING} | A4h F#4q | E4h C#4q | D4h B3q | A3h.`,
      `${FERRY_AFTERBEATS} | xq [A3 D4] [A3 D4] | xq [G#3 B3] [G#3 B3] | xq [A3 D4] A3 | xq [G#3 D4] [G#3 B3] |
       A3h G#3q | G#3h. | A3h B3q | C#4h A3q | D4h C#4q | G#3h B3q | A3h. | G#3h. |
       ${FERRY_AFTERBEATS} | xq [A3 D4] [A3 D4] | xq [A3 C#4] A3 | xq G#3 G#3 | xq E3 E3`,
      `A2h. | D3 | E2 | A2 | D3 | E2 | B2 | E2 |
       F#2 | C#3 | D3 | A2 | B2 | E2 | D#3 | E2 |
       A2 | D3 | E2 | A2 | D3 | E2 | E2 | A2`,
    ],
  },
  {
    file: 'rain-on-tin',
    title: 'Rain on Tin',
    fifths: 2,
    mode: 'minor',
    beats: 3,
    beatType: 4,
    beatQuarters: 1,
    quartersPerMinute: 104,
    upbeat: false,
    voices: [
      [
        ...tremolo(
          'F#4 F#4 F#4',
          'F#4 G4 F#4',
          'G4 G4 A4',
          'B4 A4 G4',
          'E4 E4 F#4',
          'G4 F#4 E4',
          'F#4 F#4 A4',
          'A4 G4 F#4',
        ),
        ...tremolo('B4 B4 A4', 'G4 A4 B4', 'G4 G4 F#4', 'F#4 F#4 E4', 'B4 B4 C#5', 'D5 C#5 B4', 'B4 A4 G4'),
        ...tremolo('A4 G4 E4', 'F#4 F#4 E4', 'G4 F#4 E4', 'F#4 F#4 E4'),
        '[B2 F#3 B3 D4 F#4]h.',
      ].join(' | '),
      `B2q F#3 B3 | B2 F#3 D4 | E2 E3 B3 | E2 G3 B3 | A2 E3 G3 | A2 G3 C#4 | D3 A3 D4 | D3 A3 D4 |
       G2 D3 B3 | G2 D3 B3 | E2 B3 G3 | F#2 C#3 A#3 | B2 F#3 D4 | B2 F#3 D4 | E2 E3 B3 |
       A2 E3 C#4 | D3 A3 D4 | G2 D3 B3 | F#2 C#3 A#3 | xh.`,
    ],
  },
  {
    file: 'scaffold',
    title: 'Scaffold',
    fifths: 2,
    mode: 'major',
    beats: 4,
    beatType: 4,
    beatQuarters: 1,
    quartersPerMinute: 96,
    upbeat: false,
    voices: [
      [
        ...rocking(
          'A3 D4 F#4',
          'B3 E4 G4',
          'C#4 F#4 A4',
          'D4 G4 B4',
          'E4 A4 C#5',
          'D4 G4 B4',
          'C#4 F#4 A4',
          'B3 E4 G4',
        ),
        ...rocking(
          'A3 C#4 F#4',
          'B3 D4 F#4',
          'C#4 E4 A4',
          'D4 F#4 B4',
          'C#4 E4 G#4',
          'B3 D4 F#4',
          'A3 C#4 E4',
          'G3 C#4 E4',
        ),
        ...rocking('A3 D4 F#4', 'B3 E4 G4', 'C#4 F#4 A4', 'D4 G4 B4', 'B3 E4 G#4', 'A3 C#4 E4', 'G3 C#4 E4'),
        '[D3 A3 D4 F#4]w',
      ].join(' | '),
      `D3w | D3 | D3 | D3 | D3 | D3 | A2 | A2 | F#2 | B2 | A2 | B2 | C#3 | B2 | A2 | A2 |
       D3 | D3 | D3 | D3 | E2 | A2 | A2 | xw`,
    ],
  },
  {
    file: 'cellar-song',
    title: 'Cellar Song',
    fifths: 3,
    mode: 'major',
    beats: 2,
    beatType: 4,
    beatQuarters: 1,
    quartersPerMinute: 72,
    upbeat: false,
    voices: [
      [
        ...again(...Array.from({ length: 8 }, () => 'B3 E4')),
        ...again('A3 E4', 'A3 E4', 'A3 E4', 'A3 E4'),
        ...again(...Array.from({ length: 11 }, () => 'B3 E4')),
        'xe [A3 C#4 E4]q.',
      ].join(' | '),
      `A2h | B2q C#3 | D3h | C#3q B2 | E3h | F#3q E3 | D3h | C#3h | F#3h | E3q D3 | C#3h | E3h |
       D3q C#3 | B2q C#3 | A2h | B2h | C#3h | E3q F#3 | G#3h | F#3q E3 | D3q C#3 | B2q D3 | C#3q B2 | A2h`,
    ],
  },
];
