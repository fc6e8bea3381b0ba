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
];
