/** MEI, in the form that the engraver gives it, as written music. Source: MEI 5, module CMN. */
import { fail, type Result } from '../../result';
import type { ImportError } from '../importError';
import { childNamed, childrenNamed, descendants, type XmlElement } from '../musicxml/xmlTree';
import { orRefusal, Refusal } from '../musicxml/refusal';
import { HIGHEST_OCTAVE, LOWEST_OCTAVE, MOST_DOTS } from '../limits';
import { quartersOf, typeOfShare } from '../written/values';
import type {
  WrittenBar,
  WrittenEvent,
  WrittenMusic,
  WrittenPart,
  WrittenPitch,
} from '../written/writtenMusic';

const ALTERS: Readonly<Record<string, number>> = {
  s: 1,
  ss: 2,
  x: 2,
  f: -1,
  ff: -2,
  n: 0,
  ns: 1,
  nf: -1,
};

interface Spans {
  readonly starts: ReadonlyMap<string, readonly number[]>;
  readonly stops: ReadonlyMap<string, readonly number[]>;
}

/** Every staff becomes a part. */
export function meiToMusic(root: XmlElement): Result<WrittenMusic, ImportError> {
  if (root.name !== 'mei') return fail({ code: 'wrongRoot', root: root.name });
  return orRefusal(() => {
    const all = [...descendants(root)];
    const score = all.find((element) => element.name === 'score');
    if (!score) throw new Refusal({ code: 'mei', detail: 'it holds no <score>' });
    if (all.some((element) => element.name === 'tupletSpan')) {
      throw new Refusal({ code: 'mei', detail: 'it writes tuplets as spans, which is not read' });
    }
    const title = all.find((element) => element.name === 'title')?.text.trim() ?? '';
    const staffDefs = all.filter((element) => element.name === 'staffDef');
    const numbers = [...new Set(staffDefs.map((staff) => staff.attributes['n'] ?? '1'))];
    const reader = new MeiReader(score, all);
    return { title, parts: numbers.map((number) => reader.part(number, staffDefs)) };
  });
}

class MeiReader {
  private readonly slurs: Spans;
  private readonly ties: Spans;
  private readonly marks: ReadonlyMap<string, readonly string[]>;

  constructor(
    private readonly score: XmlElement,
    all: readonly XmlElement[],
  ) {
    this.slurs = spansOf(all, 'slur');
    this.ties = spansOf(all, 'tie');
    this.marks = marksOf(all);
  }

  part(number: string, staffDefs: readonly XmlElement[]): WrittenPart {
    const definition = staffDefs.find((staff) => (staff.attributes['n'] ?? '1') === number)!;
    const clef = childNamed(definition, 'clef')?.attributes ?? definition.attributes;
    const value = (name: string) => clef[name] ?? clef[`clef.${name}`];
    const clefOctave = value('dis') === '8' ? (value('dis.place') === 'above' ? 1 : -1) : 0;
    const bars: WrittenBar[] = [];
    let pending: readonly XmlElement[] = [];
    const walk = (element: XmlElement, ending: string | null) => {
      for (const child of element.children) {
        if (child.name === 'scoreDef' || child.name === 'staffDef') pending = [...pending, child];
        else if (child.name === 'measure') {
          bars.push(this.bar(child, number, pending, ending, bars.length));
          pending = [];
          ending = null;
        } else if (child.name === 'ending') {
          const before = bars.length;
          walk(child, child.attributes['n']?.replace(/[^\d,]/g, '') || '1');
          const last = bars.at(-1);
          const label = bars[before]?.endingStart ?? null;
          if (last && bars.length > before) bars[bars.length - 1] = { ...last, endingStop: label };
        } else if (['section', 'score'].includes(child.name)) walk(child, ending);
      }
    };
    walk(this.score, null);
    return {
      name: childNamed(definition, 'label')?.text.trim() ?? '',
      clefOctave,
      clef: { sign: value('shape') ?? 'G', line: Number(value('line') ?? 2) },
      bars,
    };
  }

  private bar(
    measure: XmlElement,
    staffNumber: string,
    definitions: readonly XmlElement[],
    ending: string | null,
    index: number,
  ): WrittenBar {
    const staff = childrenNamed(measure, 'staff').find((one) => (one.attributes['n'] ?? '1') === staffNumber);
    const { fifths, mode, metre, metreElement } = signaturesIn(definitions);
    const left = measure.attributes['left'] ?? '';
    const right = measure.attributes['right'] ?? '';
    const tempo = childrenNamed(measure, 'tempo')[0];
    return {
      number: measure.attributes['n'] ?? String(index + 1),
      fifths,
      mode,
      metre,
      quartersPerMinute: Number(tempo?.attributes['midi.bpm'] ?? NaN) || null,
      voices: childrenNamed(staff ?? measure, 'layer').map((layer) => this.layer(layer, metreElement)),
      repeatStart: /rptstart|rptboth/.test(left),
      repeatEnd: /rptend|rptboth/.test(right),
      endingStart: ending,
      endingStop: null,
      sectionEnd: /dbl|end/.test(right),
      implicit: measure.attributes['metcon'] === 'false',
    };
  }

  private layer(layer: XmlElement, metre: XmlElement | undefined): readonly WrittenEvent[] {
    const events: WrittenEvent[] = [];
    const visit = (element: XmlElement, tuplet: WrittenEvent['tuplet'], grace: WrittenEvent['grace']) => {
      for (const child of element.children) {
        if (child.name === 'tuplet') {
          visit(child, tupletOf(child), grace);
        } else if (child.name === 'graceGrp') visit(child, tuplet, graceOf(child) ?? 'plain');
        else if (['beam', 'bTrem', 'fTrem'].includes(child.name)) visit(child, tuplet, grace);
        else if (['note', 'chord', 'rest', 'space', 'mRest', 'mSpace'].includes(child.name)) {
          events.push(this.event(child, tuplet, graceOf(child) ?? grace, metre));
        }
      }
    };
    visit(layer, null, null);
    return events;
  }

  private tieOf(note: XmlElement, element: XmlElement): WrittenEvent['ties'][number] {
    const id = note.attributes['xml:id'] ?? '';
    const tie = note.attributes['tie'] ?? element.attributes['tie'] ?? '';
    return {
      start: this.ties.starts.has(id) || /[im]/.test(tie),
      stop: this.ties.stops.has(id) || /[tm]/.test(tie),
    };
  }

  private event(
    element: XmlElement,
    tuplet: WrittenEvent['tuplet'],
    grace: WrittenEvent['grace'],
    metre: XmlElement | undefined,
  ): WrittenEvent {
    const notes = notesIn(element);
    const whole = /^m(Rest|Space)$/.test(element.name);
    const share = shareOf(element.attributes['dur'] ?? notes[0]?.attributes['dur'] ?? (whole ? '1' : ''));
    const dots = wholeOf(
      element.attributes['dots'] ?? notes[0]?.attributes['dots'] ?? '0',
      0,
      MOST_DOTS,
      'dots',
    );
    const ids = [element, ...notes].map((one) => one.attributes['xml:id'] ?? '');
    const from = (spans: ReadonlyMap<string, readonly number[]>) => ids.flatMap((id) => spans.get(id) ?? []);
    return {
      pitches: notes.map(pitchOf),
      space: /pace$/.test(element.name),
      quarters: grace ? { num: 0, den: 1 } : whole ? wholeBar(metre) : quartersOf(share, dots, tuplet),
      type: whole ? null : typeOfShare(share),
      dots,
      tuplet,
      grace,
      ties: notes.map((note) => this.tieOf(note, element)),
      slurStarts: from(this.slurs.starts),
      slurStops: from(this.slurs.stops),
      notations: ids.flatMap((id) => this.marks.get(id) ?? []).concat(articulationsOf(element)),
      words: [],
      chordName: null,
      lyric: [...descendants(element)].find((one) => one.name === 'syl')?.text.trim() ?? null,
    };
  }
}

const notesIn = (element: XmlElement): readonly XmlElement[] =>
  element.name === 'chord'
    ? [...descendants(element)].filter((one) => one.name === 'note')
    : element.name === 'note'
      ? [element]
      : [];

const MOST_BEATS = 128;
const SHORTEST_BEAT = 128;

const wholeBar = (metre: XmlElement | undefined) => {
  const beats = wholeOf(
    metre?.attributes['count'] ?? metre?.attributes['meter.count'] ?? '4',
    1,
    MOST_BEATS,
    'beats in a bar',
  );
  const unit = wholeOf(
    metre?.attributes['unit'] ?? metre?.attributes['meter.unit'] ?? '4',
    1,
    SHORTEST_BEAT,
    'parts of a whole note',
  );
  return quartersOf(unit, 0, { actual: 1, normal: beats });
};

/** Key and metre that begin with a bar. */
function signaturesIn(definitions: readonly XmlElement[]) {
  const inner = definitions.flatMap((one) => [one, ...descendants(one)]);
  const signature = inner
    .map((one) => one.attributes['key.sig'] ?? (one.name === 'keySig' ? one.attributes['sig'] : undefined))
    .find((one) => one !== undefined);
  const mode = inner.map((one) => one.attributes['mode'] ?? one.attributes['key.mode']).find((one) => one);
  const metreElement = inner.find((one) => one.attributes['meter.count'] || one.name === 'meterSig');
  const read = (long: string, short: string) =>
    Number(metreElement?.attributes[long] ?? metreElement?.attributes[short] ?? NaN);
  const [beats, beatType] = [read('meter.count', 'count'), read('meter.unit', 'unit')];
  return {
    fifths: signature === undefined ? null : fifthsOf(signature),
    mode: mode === 'major' || mode === 'minor' ? (mode as 'major' | 'minor') : null,
    metre: beats > 0 && beatType > 0 ? { beats, beatType } : null,
    metreElement,
  };
}

const graceOf = (element: XmlElement): WrittenEvent['grace'] => {
  const grace = element.attributes['grace'];
  return grace === undefined ? null : grace === 'unacc' ? 'slashed' : 'plain';
};

function shareOf(dur: string): number {
  const share = dur === 'breve' ? 0.5 : dur === 'long' ? 0.25 : Number(dur);
  if (!(share >= 1 && share <= 128 && Number.isInteger(Math.log2(share)))) {
    throw new Refusal({ code: 'mei', detail: `a note or rest has the duration “${dur}”` });
  }
  return share;
}

/** @throws Refusal that names what is no such number */
function wholeOf(text: string, least: number, most: number, what: string): number {
  const value = Number(text);
  if (Number.isInteger(value) && value >= least && value <= most) return value;
  throw new Refusal({ code: 'mei', detail: `“${text.slice(0, 20)}” is no number of ${what}` });
}

const MOST_IN_TUPLET = 64;

const tupletOf = ({ attributes }: XmlElement) => ({
  actual: wholeOf(attributes['num'] ?? '3', 1, MOST_IN_TUPLET, 'notes in a tuplet'),
  normal: wholeOf(attributes['numbase'] ?? '2', 1, MOST_IN_TUPLET, 'notes that a tuplet replaces'),
});

function pitchOf(note: XmlElement): WrittenPitch {
  const sign = childNamed(note, 'accid');
  const text =
    note.attributes['accid.ges'] ??
    sign?.attributes['accid.ges'] ??
    note.attributes['accid'] ??
    sign?.attributes['accid'] ??
    'n';
  const step = (note.attributes['pname'] ?? '').toUpperCase();
  const octave = Number(note.attributes['oct'] ?? NaN);
  if (!/^[A-G]$/.test(step) || !(octave >= LOWEST_OCTAVE && octave <= HIGHEST_OCTAVE)) {
    throw new Refusal({
      code: 'mei',
      detail: `a note has no pitch (id ${note.attributes['xml:id'] ?? '?'})`,
    });
  }
  return { step, alter: ALTERS[text] ?? 0, octave };
}

/** "2s" is two sharps. */
function fifthsOf(signature: string): number {
  const match = /^(\d)([sf])$/.exec(signature);
  return match ? Number(match[1]) * (match[2] === 's' ? 1 : -1) : 0;
}

function spansOf(all: readonly XmlElement[], name: 'slur' | 'tie'): Spans {
  const starts = new Map<string, number[]>();
  const stops = new Map<string, number[]>();
  const put = (map: Map<string, number[]>, reference: string | undefined, number: number) => {
    const id = reference?.replace(/^#/, '');
    if (id) map.set(id, [...(map.get(id) ?? []), number]);
  };
  all
    .filter((element) => element.name === name)
    .forEach((element, k) => {
      put(starts, element.attributes['startid'], (k % 6) + 1);
      put(stops, element.attributes['endid'], (k % 6) + 1);
    });
  return { starts, stops };
}

const SIGNS: Readonly<Record<string, string>> = {
  fermata: '<fermata/>',
  arpeg: '<arpeggiate/>',
  trill: '<ornaments><trill-mark/></ornaments>',
  mordent: '<ornaments><mordent/></ornaments>',
  turn: '<ornaments><turn/></ornaments>',
};

/** Signs and fingers that point at their notes. */
function marksOf(all: readonly XmlElement[]): ReadonlyMap<string, readonly string[]> {
  const marks = new Map<string, string[]>();
  for (const element of all) {
    const finger =
      element.name === 'fing' && /^[0-4]$/.test(element.text.trim()) ? element.text.trim() : null;
    const sign = finger ? `<technical><fingering>${finger}</fingering></technical>` : SIGNS[element.name];
    const id = (element.attributes['startid'] ?? '').replace(/^#/, '');
    if (sign && id) marks.set(id, [...(marks.get(id) ?? []), sign]);
  }
  return marks;
}

function articulationsOf(element: XmlElement): string[] {
  const names = [
    element.attributes['artic'] ?? '',
    ...childrenNamed(element, 'artic').map((one) => one.attributes['artic'] ?? ''),
  ].join(' ');
  const rows = [
    [/\bstacc\b/, '<staccato/>'],
    [/\bacc\b/, '<accent/>'],
    [/\bten\b/, '<tenuto/>'],
  ] as const;
  const found = rows.filter(([pattern]) => pattern.test(names)).map(([, xml]) => xml);
  return found.length > 0 ? [`<articulations>${found.join('')}</articulations>`] : [];
}
