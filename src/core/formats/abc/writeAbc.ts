/**
 * A score in ABC notation, with its fingers as decorations (!1!) and its letters and strings as annotations, which is
 * what the notation has for them. Source: The abc music standard 2.1, sections 3, 4 and 7. Written, not sounding, pitch.
 */
import type { FingeringPlan } from '../../fingering/report/plan';
import { midiOf, type Pitch, type Step } from '../../music/pitch';
import type { Measure, Score, ScoreNote } from '../../score/model';

/** Lengths are in eighths. */
const UNIT_QUARTERS = 0.5;
const MAJOR_KEYS = [
  'Cb',
  'Gb',
  'Db',
  'Ab',
  'Eb',
  'Bb',
  'F',
  'C',
  'G',
  'D',
  'A',
  'E',
  'B',
  'F#',
  'C#',
] as const;
const SHARPS: readonly Step[] = ['F', 'C', 'G', 'D', 'A', 'E', 'B'];
const ACCIDENTALS: Readonly<Record<string, string>> = {
  '-2': '__',
  '-1': '_',
  '0': '=',
  '1': '^',
  '2': '^^',
};

/** Which signs are written; see `shownMarks`. */
export interface AbcSigns {
  readonly fingers: ReadonlySet<string>;
  readonly strings: ReadonlySet<string>;
  readonly letters: ReadonlySet<string>;
}

export function writeAbc(score: Score, plan: FingeringPlan, signs: AbcSigns): string {
  const voices = [...new Set(score.notes.map(({ voice }) => voice))];
  const metre = score.metres[0];
  const tempo = score.tempos[0];
  const head = [
    'X:1',
    `T:${score.title.replace(/\s+/g, ' ')}`,
    `M:${metre ? `${metre.beats}/${metre.beatType}` : 'none'}`,
    'L:1/8',
    ...(tempo ? [`Q:1/4=${Math.round(tempo.quartersPerMinute)}`] : []),
    ...(voices.length > 1 ? [`%%score (${voices.map((_, k) => k + 1).join(' ')})`] : []),
    `K:${keyName(score, 0)} clef=treble-8`,
  ];
  const writer = { score, signs, planned: new Map(plan.notes.map((note) => [note.uid, note])) };
  const body = voices.flatMap((voice, k) => [
    ...(voices.length > 1 ? [`V:${k + 1} clef=treble-8`] : []),
    ...lines(score.measures.map((measure) => barText(writer, measure, voice))),
  ]);
  return `${[...head, ...body].join('\n')}\n`;
}

interface Writer {
  readonly score: Score;
  readonly signs: AbcSigns;
  readonly planned: ReadonlyMap<string, FingeringPlan['notes'][number]>;
}

const BARS_IN_LINE = 4;
function lines(bars: readonly string[]): readonly string[] {
  const all: string[] = [];
  for (let from = 0; from < bars.length; from += BARS_IN_LINE)
    all.push(bars.slice(from, from + BARS_IN_LINE).join(' '));
  return all;
}

function keyName(score: Score, tick: number): string {
  const key = score.keys.findLast((one) => one.tick <= tick);
  return MAJOR_KEYS[(key?.fifths ?? 0) + 7] ?? 'C';
}

function barText(writer: Writer, measure: Measure, voice: string): string {
  const { score } = writer;
  const open = measure.repeatStart ? '|: ' : '';
  const ending = measure.ending === null ? '' : `[${measure.ending.replace(/\s/g, '')} `;
  const metre = measure.index === 0 ? '' : changeAt(score, measure);
  const close = measure.repeatEnd ? ':|' : measure.sectionEnd ? '||' : '|';
  return `${open}${ending}${metre}${contentOf(writer, measure, voice)} ${close}`;
}

/** A new key or metre at a bar line. */
function changeAt(score: Score, { startTicks }: Measure): string {
  const metre = score.metres.find(({ tick }) => tick === startTicks);
  const key = score.keys.find(({ tick }) => tick === startTicks);
  return `${key ? `[K:${keyName(score, startTicks)}] ` : ''}${metre ? `[M:${metre.beats}/${metre.beatType}] ` : ''}`;
}

/** Part of a sound that lies in one bar. */
interface Piece {
  readonly note: ScoreNote;
  readonly from: number;
  readonly to: number;
  readonly isHead: boolean;
  readonly goesOn: boolean;
}

function contentOf(writer: Writer, measure: Measure, voice: string): string {
  const { score } = writer;
  const start = measure.startTicks;
  const end = start + measure.durationTicks;
  const own = score.notes.filter((note) => note.voice === voice);
  const pieces = own
    .filter((note) => !note.grace && note.onsetTicks < end && note.onsetTicks + note.durationTicks > start)
    .map((note): Piece => {
      const noteEnd = note.onsetTicks + note.durationTicks;
      return {
        note,
        from: Math.max(start, note.onsetTicks),
        to: Math.min(end, noteEnd),
        isHead: note.onsetTicks >= start,
        goesOn: noteEnd > end,
      };
    });
  const accidentals = new Accidentals(score, start);
  const parts: string[] = [];
  let at = start;
  for (const from of [...new Set(pieces.map((piece) => piece.from))].sort((a, b) => a - b)) {
    if (from > at) parts.push(`x${lengthText(score, from - at)}`);
    const chord = pieces.filter((piece) => piece.from === from);
    const graces = own.filter((note) => note.grace && note.onsetTicks === from && chord[0]!.isHead);
    if (graces.length > 0)
      parts.push(`{${graces.map((note) => accidentals.write(writtenPitch(note))).join('')}}`);
    // What lasts longer than the next onset of the voice cannot be said in it; the shortest sets the time.
    const to = Math.min(...chord.map((piece) => piece.to));
    parts.push(chordText(writer, chord, to - from, accidentals));
    at = Math.max(at, to);
  }
  if (at < end) parts.push(`x${lengthText(score, end - at)}`);
  return parts.join(' ');
}

function chordText(writer: Writer, chord: readonly Piece[], ticks: number, accidentals: Accidentals): string {
  const { score } = writer;
  const starts = chord.some(
    ({ note, isHead }) => isHead && score.slurs.some(({ fromUid }) => fromUid === note.uid),
  );
  const stops = chord.some(
    ({ note, isHead }) => isHead && score.slurs.some(({ toUid }) => toUid === note.uid),
  );
  const staccato = chord.some(({ note }) => note.tags.includes('staccato')) ? '.' : '';
  const marks = chord.filter(({ isHead }) => isHead).map(({ note }) => signsOf(writer, note.uid));
  const notes = chord.map(
    ({ note, goesOn }) => `${accidentals.write(writtenPitch(note))}${goesOn ? '-' : ''}`,
  );
  const length = lengthText(score, ticks);
  const body =
    notes.length === 1
      ? `${notes[0]!.replace(/-$/, '')}${length}${chord[0]!.goesOn ? '-' : ''}`
      : `[${notes.join('')}]${length}`;
  return `${starts ? '(' : ''}${marks.join('')}${staccato}${body}${stops ? ')' : ''}`;
}

function signsOf({ planned, signs }: Writer, uid: string): string {
  const note = planned.get(uid);
  if (!note) return '';
  const finger = note.finger !== null && signs.fingers.has(uid) ? `!${note.finger}!` : '';
  const string = note.string !== null && signs.strings.has(uid) ? `"^(${note.string})"` : '';
  const letter = note.pluck !== null && signs.letters.has(uid) ? `"_${note.pluck}"` : '';
  return string + letter + finger;
}

/** "3/2" eighths; nothing for one. */
function lengthText(score: Score, ticks: number): string {
  const divisor = score.ticksPerQuarter * UNIT_QUARTERS;
  const common = gcd(ticks, divisor);
  const [above, below] = [ticks / common, divisor / common];
  return below === 1 ? (above === 1 ? '' : String(above)) : `${above === 1 ? '' : above}/${below}`;
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/** Written an octave above its sound, whatever the file that it comes from writes. */
function writtenPitch({ pitch, soundingMidi }: ScoreNote): Pitch {
  const octaves = Math.round((soundingMidi - midiOf(pitch)) / 12);
  return { ...pitch, octave: pitch.octave + octaves + 1 };
}

/**
 * An accidental is written where neither the key nor the bar says it. Readers differ in whether one holds for its octave
 * or for its letter: it is left out only where both say the same.
 */
class Accidentals {
  private readonly alterOf = new Map<string, number>();
  private readonly fifths: number;

  constructor(score: Score, tick: number) {
    this.fifths = score.keys.findLast((one) => one.tick <= tick)?.fifths ?? 0;
  }

  write(pitch: Pitch): string {
    const { step, octave, alter } = pitch;
    const own = [...this.alterOf].filter(([place]) => place.startsWith(step)).map(([, known]) => known);
    const isKnown = (own.length > 0 ? own : [this.ofKey(step)]).every((known) => known === alter);
    this.alterOf.set(`${step}${octave}`, alter);
    return (isKnown ? '' : (ACCIDENTALS[String(alter)] ?? '')) + letterOf(pitch);
  }

  private ofKey(step: Step): number {
    const order = SHARPS.indexOf(step);
    if (this.fifths > 0) return order < this.fifths ? 1 : 0;
    return SHARPS.length - 1 - order < -this.fifths ? -1 : 0;
  }
}

/** C is middle C under this clef as written; lower octaves have commas, higher ones apostrophes. */
function letterOf({ step, octave }: Pitch): string {
  if (octave >= 5) return step.toLowerCase() + "'".repeat(octave - 5);
  return step + ','.repeat(4 - octave);
}
