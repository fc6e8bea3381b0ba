/** A parsed ABC tune as written music. Source: the ABC music standard 2.1. */
import { type Fraction, fraction } from '../../music/fraction';
import { isTempo, LONGEST_QUARTERS } from '../limits';
import { Refusal } from '../musicxml/refusal';
import { maybeValue } from '../written/values';
import type {
  WrittenBar,
  WrittenEvent,
  WrittenMusic,
  WrittenPart,
  WrittenPitch,
} from '../written/writtenMusic';
import type { AbcElement, AbcKey, AbcMetre, AbcTune } from './tune';

const LETTERS = ['C', 'D', 'E', 'F', 'G', 'A', 'B'] as const;
const ALTERS: Readonly<Record<string, number>> = {
  dblsharp: 2,
  sharp: 1,
  natural: 0,
  flat: -1,
  dblflat: -2,
};

type Growing<T> = { -readonly [K in keyof T]: T[K] };
interface OpenBar extends Growing<WrittenBar> {
  voices: WrittenEvent[][];
}

/**
 * Every staff of the tune becomes a part; voices that share a staff share the part. Voices that nobody has named and that
 * are all in one clef are those of one player, even where each has a staff of its own: so most two-part pieces are
 * typed.
 */
export function abcToMusic(tune: AbcTune): WrittenMusic {
  const count = Math.max(0, ...tune.lines.map((line) => line.staff?.length ?? 0));
  const staves = Array.from({ length: count }, (_, staff) => staff);
  const heads = staves.map((staff) => headOf(tune, staff));
  const ofOnePlayer = heads.every(({ name, clef }) => name === '' && clef === heads[0]!.clef);
  const parts = ofOnePlayer && count > 0 ? [staves] : staves.map((staff) => [staff]);
  return {
    title: tune.metaText.title ?? '',
    parts: parts.map((some) => new PartReader(tune, some).read()),
  };
}

function headOf(tune: AbcTune, staff: number) {
  const first = tune.lines.find((line) => line.staff?.[staff])?.staff?.[staff];
  return { clef: first?.clef?.type ?? 'treble', name: first?.title?.find((one) => one) ?? '' };
}

class PartReader {
  private readonly bars: OpenBar[] = [];
  private readonly head: ReturnType<typeof headOf>;
  private alters: ReadonlyMap<string, number> = new Map();

  constructor(
    private readonly tune: AbcTune,
    private readonly staves: readonly number[],
  ) {
    this.head = headOf(tune, staves[0]!);
  }

  read(): WrittenPart {
    let voices = 0;
    for (const staff of this.staves) {
      const here = Math.max(...this.tune.lines.map((line) => line.staff?.[staff]?.voices.length ?? 0));
      for (let voice = 0; voice < here; voice++) this.readVoice(staff, voice, voices + voice);
      voices += here;
    }
    const bars = this.bars.filter((bar) => bar.voices.some((voice) => voice.length > 0));
    const head = bars[0];
    if (head) {
      const tempo = this.tune.metaText.tempo;
      const perMinute = (tempo?.bpm ?? 0) * (tempo?.duration?.[0] ?? 0.25) * 4;
      if (isTempo(perMinute)) head.quartersPerMinute = perMinute;
    }
    const { name, clef } = this.head;
    return {
      name,
      clefOctave: this.clefOctave,
      clef: /bass/.test(clef) ? { sign: 'F', line: 4 } : { sign: 'G', line: 2 },
      bars: bars.map((bar, k) => ({ ...bar, number: String(k + 1) })),
    };
  }

  private get clefOctave() {
    return /-8/.test(this.head.clef) ? -1 : /\+8/.test(this.head.clef) ? 1 : 0;
  }

  private barAt(index: number): OpenBar {
    while (this.bars.length <= index) {
      this.bars.push({
        number: '',
        fifths: null,
        mode: null,
        metre: null,
        quartersPerMinute: null,
        voices: [],
        repeatStart: false,
        repeatEnd: false,
        endingStart: null,
        endingStop: null,
        sectionEnd: false,
        implicit: false,
      });
    }
    return this.bars[index]!;
  }

  /** @param voiceThere its number among those of its staff; `voice` is that among all of the part */
  private readVoice(staffNumber: number, voiceThere: number, voice: number) {
    const cursor = new VoiceCursor();
    let lastKey = '';
    for (const line of this.tune.lines) {
      const staff = line.staff?.[staffNumber];
      if (!staff) continue;
      const key = JSON.stringify(staff.key ?? null);
      if (staff.key && key !== lastKey) this.setKey(staff.key, cursor.index);
      lastKey = key;
      if (staff.meter) this.setMetre(staff.meter, cursor.index);
      for (const element of staff.voices[voiceThere] ?? []) this.readElement(element, voice, cursor);
    }
  }

  private readElement(element: AbcElement, voice: number, cursor: VoiceCursor) {
    switch (element.el_type) {
      case 'bar':
        return this.readBar(element, voice, cursor);
      case 'key':
        return this.setKey(element, cursor.index);
      case 'meter':
        return this.setMetre({ type: element.type ?? '', value: element.value }, cursor.index);
      case 'tempo':
        if (element.bpm) {
          const unit = Array.isArray(element.duration) ? (element.duration[0] ?? 0.25) : 0.25;
          const perMinute = element.bpm * unit * 4;
          if (isTempo(perMinute)) this.barAt(cursor.index).quartersPerMinute = perMinute;
        }
        return;
      case 'note':
        return this.readNote(element, voice, cursor);
    }
  }

  private readBar(element: AbcElement, voice: number, cursor: VoiceCursor) {
    const type = element.type ?? '';
    const bar = this.barAt(cursor.index);
    const filled = (bar.voices[voice]?.length ?? 0) > 0;
    if (filled) {
      if (/right_repeat|dbl_repeat/.test(type)) bar.repeatEnd = true;
      if (/thin_thin|thin_thick/.test(type)) bar.sectionEnd = true;
      if (element.endEnding && cursor.ending) bar.endingStop = cursor.ending;
      cursor.index++;
    }
    if (element.endEnding) cursor.ending = null;
    cursor.alters.clear();
    if (/left_repeat|dbl_repeat/.test(type)) this.barAt(cursor.index).repeatStart = true;
    if (element.startEnding) {
      cursor.ending = element.startEnding;
      this.barAt(cursor.index).endingStart = element.startEnding;
    }
  }

  private readNote(element: AbcElement, voice: number, cursor: VoiceCursor) {
    const events = (this.barAt(cursor.index).voices[voice] ??= []);
    for (let k = 0; k < voice; k++) this.barAt(cursor.index).voices[k] ??= [];
    if (element.startTriplet) {
      const actual = element.startTriplet;
      cursor.tuplet = { actual, normal: Math.round((element.tripletMultiplier ?? 2 / 3) * actual) };
    }
    for (const grace of element.gracenotes ?? []) {
      events.push({
        ...BARE,
        pitches: [this.pitchOf(grace, cursor)],
        quarters: fraction(0, 1),
        type: 'eighth',
        grace: grace.acciaccatura ? 'slashed' : 'plain',
        ties: [{ start: false, stop: false }],
      });
    }
    const whole = typeof element.duration === 'number' ? element.duration : 0;
    events.push(this.eventOf(element, whole, cursor));
    if (element.endTriplet) cursor.tuplet = null;
  }

  private eventOf(element: AbcElement, whole: number, cursor: VoiceCursor): WrittenEvent {
    if (!(whole >= 0 && whole * 4 <= LONGEST_QUARTERS))
      throw new Refusal({ code: 'abc', line: 1, detail: `a note or rest lasts ${whole} whole notes` });
    const plain = fraction(Math.round(whole * 4 * 512), 512);
    const value = maybeValue(plain);
    const pitches = element.pitches ?? [];
    const slurs = pitches.flatMap((pitch) => (pitch.startSlur ?? []).map((slur) => slur.label));
    const ends = pitches.flatMap((pitch) => pitch.endSlur ?? []);
    return {
      ...BARE,
      pitches: pitches.map((pitch) => this.pitchOf(pitch, cursor)),
      space: element.rest !== undefined && /invisible|spacer/.test(element.rest.type),
      quarters: cursor.tuplet ? times(plain, cursor.tuplet) : plain,
      type: element.rest?.type === 'multimeasure' ? null : (value?.type ?? null),
      dots: value?.dots ?? 0,
      tuplet: cursor.tuplet,
      ties: pitches.map((pitch) => ({
        start: pitch.startTie !== undefined,
        stop: pitch.endTie !== undefined,
      })),
      slurStarts: slurs.map((label) => (label % 6) + 1),
      slurStops: ends.map((label) => (label % 6) + 1),
      notations: notationsOf(element.decoration ?? []),
      ...textsOf(element),
    };
  }

  /** ABC counts letters from middle C; an accidental holds for its letter in every octave to the bar line. */
  private pitchOf(
    { pitch, accidental, endTie }: { pitch: number; accidental?: string; endTie?: unknown },
    cursor: VoiceCursor,
  ): WrittenPitch {
    const step = LETTERS[((pitch % 7) + 7) % 7]!;
    const written = accidental === undefined ? undefined : ALTERS[accidental];
    if (written !== undefined) cursor.alters.set(step, written);
    const tied = endTie === undefined ? undefined : cursor.last.get(pitch);
    const alter = written ?? cursor.alters.get(step) ?? tied ?? this.alters.get(step) ?? 0;
    cursor.last.set(pitch, alter);
    return { step, alter, octave: 4 + Math.floor(pitch / 7) + this.clefOctave };
  }

  private setKey(key: AbcKey, index: number) {
    const alters = new Map<string, number>();
    for (const { acc, note } of key.accidentals ?? []) {
      if (ALTERS[acc]) alters.set(note.toUpperCase(), ALTERS[acc]);
    }
    this.alters = alters;
    const bar = this.barAt(index);
    bar.fifths = [...alters.values()].reduce((sum, alter) => sum + alter, 0);
    bar.mode = key.mode === 'm' ? 'minor' : key.mode === '' ? 'major' : null;
  }

  private setMetre(metre: AbcMetre, index: number) {
    const bar = this.barAt(index);
    const row = metre.value?.[0];
    if (row) {
      const beats = row.num.split('+').reduce((sum, part) => sum + Number(part), 0);
      bar.metre = { beats, beatType: Number(row.den ?? 4) };
    } else if (metre.type === 'common_time') bar.metre = { beats: 4, beatType: 4 };
    else if (metre.type === 'cut_time') bar.metre = { beats: 2, beatType: 2 };
  }
}

class VoiceCursor {
  index = 0;
  ending: string | null = null;
  tuplet: { actual: number; normal: number } | null = null;
  readonly alters = new Map<string, number>();
  /** Alteration of the last note at each place, for a tie over the bar line. */
  readonly last = new Map<number, number>();
}

const BARE: WrittenEvent = {
  pitches: [],
  space: false,
  quarters: fraction(1, 1),
  type: 'quarter',
  dots: 0,
  tuplet: null,
  grace: null,
  ties: [],
  slurStarts: [],
  slurStops: [],
  notations: [],
  words: [],
  chordName: null,
  lyric: null,
};

const times = (length: Fraction, tuplet: { actual: number; normal: number }) =>
  fraction(length.num * tuplet.normal, length.den * tuplet.actual);

const ARTICULATIONS: Readonly<Record<string, string>> = {
  staccato: '<articulations><staccato/></articulations>',
  accent: '<articulations><accent/></articulations>',
  tenuto: '<articulations><tenuto/></articulations>',
  fermata: '<fermata/>',
  arpeggio: '<arpeggiate/>',
  trill: '<ornaments><trill-mark/></ornaments>',
  mordent: '<ornaments><mordent/></ornaments>',
  turn: '<ornaments><turn/></ornaments>',
};

const notationsOf = (decorations: readonly string[]): string[] =>
  decorations.flatMap((name) => {
    if (/^[0-4]$/.test(name)) return [`<technical><fingering>${name}</fingering></technical>`];
    return ARTICULATIONS[name] ? [ARTICULATIONS[name]] : [];
  });

const textsOf = ({
  chord = [],
  lyric = [],
}: AbcElement): Pick<WrittenEvent, 'chordName' | 'words' | 'lyric'> => ({
  chordName: chord[0]?.name ?? null,
  words: chord.map(({ name }) => name),
  lyric: lyric[0]?.syllable ?? null,
});
