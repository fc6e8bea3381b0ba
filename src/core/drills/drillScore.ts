/** A drill as a score with its fingering decided: what passes through planner, page, print and export like a piece. */
import { PIECE } from '../fingering/edition/attributes';
import { correctionsOf, type RegisterKey, type Registers } from '../fingering/edition/registers';
import type { Player } from '../instrument/hands';
import { readScore, type ScoreDocument } from '../formats/musicxml/readScore';
import { toMusicXml } from '../formats/written/toMusicXml';
import { maybeValue } from '../formats/written/values';
import type { WrittenBar, WrittenEvent } from '../formats/written/writtenMusic';
import type { EffectTag } from '../score/model';
import { openMidi, STANDARD_TUNING, type Tuning } from '../instrument/tuning';
import { fraction } from '../music/fraction';
import {
  type Chosen,
  chosenOf,
  type DrillEvent,
  type DrillKind,
  type DrillMusic,
  type DrillNote,
  HAND,
  type Part,
  parametersOf,
  playerOf,
} from './drill';
import { spelled } from './spell';
import { treated } from './treatments';

export interface DrillScore {
  readonly kind: DrillKind;
  readonly chosen: Chosen;
  readonly title: string;
  readonly player: Player;
  readonly music: DrillMusic;
  /** Where its parts begin, by index of the bar. */
  readonly parts: readonly { readonly bar: number; readonly words: string }[];
  readonly text: string;
  readonly document: ScoreDocument;
  /** The fingering as ink: a drill prescribes it. */
  readonly registers: Registers;
}

/** @throws Error when the document that was written cannot be read: a bug */
export function drillScore(kind: DrillKind, wanted: Chosen): DrillScore {
  const chosen = chosenOf(kind, wanted);
  const player = playerOf(chosen);
  const music = treated(kind.make(chosen, player), chosen);
  const title = titleOf(kind, chosen);
  const text = toMusicXml({
    title,
    parts: [
      {
        name: 'Guitar',
        clefOctave: -1,
        clef: { sign: 'G', line: 2 },
        bars: barsOf(music, music.quartersPerMinute ?? kind.ladder[0]!),
      },
    ],
  });
  const bare = documentOf(text, settingsOf(music, chosen));
  const registers = inkOfDrill(music, bare, settingsOf(music, chosen));
  return {
    kind,
    chosen,
    title,
    player,
    music,
    parts: partsOf(music),
    text,
    // How chords are struck belongs to notes that have their names only now.
    document: isStrummed(music) ? documentOf(text, registers) : bare,
    registers,
  };
}

const isStrummed = ({ voices }: DrillMusic): boolean =>
  voices.some((voice) => voice.some(({ effect }) => effect));

function documentOf(text: string, registers: Registers): ScoreDocument {
  const document = readScore(text, { corrections: correctionsOf(registers) });
  if (!document.ok) throw new Error(`a drill cannot be read: ${document.error.code}`);
  return document.value;
}

/** "Scales: harmonic minor, D": what was chosen other than usual. */
function titleOf(kind: DrillKind, chosen: Chosen): string {
  const { title } = kind;
  const words = parametersOf(kind).flatMap(({ id, values }) => {
    const k = values.findIndex(([value]) => value === chosen[id]);
    if (k < 0) return [chosen[id]!];
    return k > 0 ? [values[k]![1]] : [];
  });
  return words.length === 0 ? title : `${title}: ${words.join(', ')}`;
}

/** Source: MusicXML 4.0, `harmonic`. */
const HARMONICS = {
  natural: '<technical><harmonic><natural/></harmonic></technical>',
  artificial: '<technical><harmonic><artificial/></harmonic></technical>',
} as const;
/** Waved lines before chords, with an arrow where one finger goes over all strings. Source: MusicXML 4.0, `arpeggiate`. */
const EFFECTS: Readonly<Partial<Record<EffectTag, string>>> = {
  rollUp: '<arpeggiate/>',
  brushDown: '<arpeggiate direction="up"/>',
  brushUp: '<arpeggiate direction="down"/>',
  rasgueado: '<arpeggiate direction="up"/>',
};
const ACCENT = '<articulations><accent/></articulations>';
const CHOKED = '<articulations><staccato/></articulations>';

const barEighths = ({ metre }: DrillMusic) => (metre.beats * 8) / metre.beatType;

function barsOf(music: DrillMusic, quartersPerMinute: number): readonly WrittenBar[] {
  const voices = music.voices.map((voice) => filled(voice, barEighths(music)));
  const count = Math.max(...voices.map((bars) => bars.length));
  return Array.from({ length: count }, (_, k): WrittenBar => ({
    number: String(k + 1),
    fifths: k === 0 ? music.fifths : null,
    mode: null,
    metre: k === 0 ? music.metre : null,
    quartersPerMinute: k === 0 ? quartersPerMinute : null,
    voices: voices.map((bars) => writtenBar(bars[k] ?? rests(barEighths(music)), music)),
    repeatStart: false,
    repeatEnd: false,
    endingStart: null,
    endingStop: null,
    sectionEnd: k === count - 1 || voices.some((bars) => !!bars[k + 1]?.[0]?.begins?.words),
    implicit: false,
  }));
}

/** Bars of events; one that would cross a line or begins a part waits for the next bar, and the last is filled up. */
export function filled(events: readonly DrillEvent[], room: number): readonly (readonly DrillEvent[])[] {
  const bars: DrillEvent[][] = [[]];
  let used = 0;
  for (const event of events) {
    if (used > 0 && (event.begins || onGrid(used + event.eighths) > room)) {
      bars.at(-1)!.push(...rests(room - used));
      bars.push([]);
      used = 0;
    }
    bars.at(-1)!.push(...(event.notes.length === 0 ? restsOf(event) : [event]));
    used = onGrid(used + event.eighths);
  }
  bars.at(-1)!.push(...rests(room - used));
  return bars;
}

/** The finest part of an eighth that a drill is written in: halves of it down to a sixteenth, and thirds. */
const GRID = 24;
const isInThirds = (eighths: number): boolean => Math.round(GRID * eighths) % 3 !== 0;
const onGrid = (eighths: number): number => Math.round(GRID * eighths) / GRID;

/** What a silent step says stands over its first rest. */
function restsOf({ eighths, says, begins }: DrillEvent): readonly DrillEvent[] {
  const [first, ...others] = rests(eighths);
  return first ? [{ ...first, ...(says && { says }), ...(begins && { begins }) }, ...others] : [];
}

/** Three to the time of two eighths: the sign begins and ends with the beat. Source: MusicXML 4.0, `tuplet`. */
const tupletSigns = (from: number, to: number): readonly string[] => [
  ...(from % 2 === 0 ? ['<tuplet type="start" bracket="no"/>'] : []),
  ...(to % 2 === 0 ? ['<tuplet type="stop"/>'] : []),
];

/** The longest plain rests that fit. */
function rests(eighths: number): readonly DrillEvent[] {
  const values = isInThirds(eighths) ? [4 / 3, 2 / 3, 1 / 3] : [8, 4, 2, 1, 0.5, 0.25];
  const longest = values.find((length) => onGrid(length) <= onGrid(eighths));
  return longest === undefined ? [] : [{ notes: [], eighths: longest }, ...rests(onGrid(eighths - longest))];
}

function writtenBar(events: readonly DrillEvent[], music: DrillMusic): readonly WrittenEvent[] {
  let at = 0;
  return events.map((event, k) => {
    const from = at;
    at = onGrid(at + event.eighths);
    const quarters = fraction(Math.round(GRID * event.eighths), 2 * GRID);
    const isTriplet = isInThirds(event.eighths);
    const value = maybeValue(isTriplet ? fraction(3 * quarters.num, 2 * quarters.den) : quarters);
    return {
      pitches: event.notes.map((note) => spelled(midiOf(note, music.tuning), music.fifths)),
      space: event.notes.length === 0 && music.voices.length > 1,
      quarters,
      type: value?.type ?? null,
      dots: value?.dots ?? 0,
      tuplet: isTriplet ? { actual: 3, normal: 2 } : null,
      grace: null,
      ties: event.notes.map(() => ({ start: false, stop: false })),
      slurStarts: events[k + 1]?.slurred ? [1] : [],
      slurStops: event.slurred ? [1] : [],
      notations: [...notationsOf(event), ...(isTriplet ? tupletSigns(from, at) : [])],
      ofEach: wavesOf(event),
      words: [event.begins?.words, event.says].filter((words): words is string => !!words),
      chordName: null,
      lyric: null,
    };
  });
}

function notationsOf({ notes, accented, choked }: DrillEvent): readonly string[] {
  const harmonic = notes.find((note) => note.harmonic)?.harmonic;
  return [
    ...(harmonic ? [HARMONICS[harmonic]] : []),
    ...(accented ? [ACCENT] : []),
    ...(choked && notes.length > 0 ? [CHOKED] : []),
  ];
}

function wavesOf({ effect }: DrillEvent): readonly string[] {
  const wave = effect && EFFECTS[effect];
  return wave ? [wave] : [];
}

/** As it is written: given, or found where it is played. */
export const midiOf = (
  { string, fret, soundsAbove, midi }: Omit<DrillNote, 'finger' | 'letter'>,
  tuning: Tuning = STANDARD_TUNING,
): number => midi ?? openMidi(tuning, string ?? 1) + (soundsAbove ?? fret ?? 0);

/** The bars in which parts begin. */
function partsOf(music: DrillMusic): DrillScore['parts'] {
  return filled(music.voices[0] ?? [], barEighths(music)).flatMap((events, bar) => {
    const words = events[0]?.begins?.words;
    return !words ? [] : [{ bar, words }];
  });
}

/** By note of the document, which begins where its event does and sounds as it does. */
function inkOfDrill(music: DrillMusic, { score }: ScoreDocument, settings: Registers): Registers {
  const registers = new Map<RegisterKey, string | number | boolean>(settings);
  schoolOfBars(music).forEach((school, bar) => {
    const measure = score.measures[bar];
    if (school && measure) registers.set(`${measure.uid} strokeSchool`, school);
  });
  const struck = struckAt(music, score.ticksPerQuarter / 2);
  for (const { uid, onsetTicks, soundingMidi } of score.notes) {
    const found = struck.get(`${onsetTicks} ${soundingMidi}`);
    if (!found) continue;
    const { note, effect } = found;
    if (note.finger !== null) registers.set(`${uid} finger`, note.finger);
    if (note.string !== null) registers.set(`${uid} string`, note.string);
    if (note.letter) registers.set(`${uid} pluck`, note.letter);
    if (effect) registers.set(`${uid} effect`, effect);
  }
  return registers;
}

/** What holds for the whole drill, as an edition has it. */
function settingsOf(music: DrillMusic, chosen: Chosen): Registers {
  const settings = { ...music.settings, ...(chosen['hand'] !== HAND_UNSAID && { hand: chosen['hand'] }) };
  return new Map(
    Object.entries(settings).flatMap(([attribute, value]) =>
      value === undefined ? [] : [[`${PIECE} ${attribute}` as RegisterKey, value] as const],
    ),
  );
}

/** The hand that an edition has where nothing is set. */
const HAND_UNSAID = HAND.values[0]![0];

/** By bar: the school of the part that it belongs to. */
function schoolOfBars(music: DrillMusic): readonly (Part['strokeSchool'] | null)[] {
  let school: Part['strokeSchool'] | null = null;
  return filled(music.voices[0] ?? [], barEighths(music)).map((events) => {
    const part = events[0]?.begins;
    if (part) school = part.strokeSchool ?? null;
    return school;
  });
}

/** By onset and sound. */
function struckAt(music: DrillMusic, eighth: number) {
  const noteAt = new Map<string, { readonly note: DrillNote; readonly effect: DrillEvent['effect'] }>();
  for (const voice of music.voices) {
    let at = 0;
    for (const event of filled(voice, barEighths(music)).flat()) {
      for (const note of event.notes)
        noteAt.set(`${Math.round(at * eighth)} ${midiOf(note, music.tuning)}`, {
          note,
          effect: event.effect,
        });
      at = onGrid(at + event.eighths);
    }
  }
  return noteAt;
}
