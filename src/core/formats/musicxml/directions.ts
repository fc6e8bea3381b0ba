/** Tempo, words, dynamics and chord symbols: what stands at a place of the bar. */
import type { Direction } from '../../score/model';
import { isTempo } from '../limits';
import { childNamed, childrenNamed, childText, descendants, type XmlElement } from './xmlTree';

type Bare = Omit<Direction, 'tick'>;

/** Quarters per minute that a `<direction>` or `<sound>` asks for; NaN when none. */
export function tempoOf(element: XmlElement): number {
  const sound = element.name === 'sound' ? element : childNamed(element, 'sound');
  const perMinute = Number(sound?.attributes['tempo'] ?? NaN) || metronomeOf(element);
  return isTempo(perMinute) ? perMinute : NaN;
}

export function readDirection(direction: XmlElement): readonly Bare[] {
  return childrenNamed(direction, 'direction-type').flatMap((type) =>
    type.children.flatMap((element): readonly Bare[] => {
      const text = element.text.trim();
      if (element.name === 'words' && text) return [{ kind: 'words', text }];
      if (element.name === 'rehearsal' && text) return [{ kind: 'rehearsal', text }];
      if (element.name === 'dynamics') {
        return element.children.map((one) => ({ kind: 'dynamic', text: one.text.trim() || one.name }));
      }
      return [];
    }),
  );
}

/** Whether a direction lets notes ring from here on, or ends it: a pedal line, or words that say so. */
export function ringingOf(direction: XmlElement): 'start' | 'stop' | 'bar' | null {
  for (const element of descendants(direction)) {
    if (element.name === 'pedal') {
      const type = element.attributes['type'];
      if (type === 'start' || type === 'sostenuto') return 'start';
      if (type === 'stop' || type === 'discontinue') return 'stop';
    }
    if (element.name === 'words' && LET_RING.test(element.text)) return 'bar';
  }
  return null;
}

/** "Let ring" in the languages of scores; without an end of its own it holds for the bar. Common practice. */
const LET_RING =
  /\blet ring\b|\bl\. ?v\.|\blaisser vibrer\b|\blasciar? vibrare\b|\bklingen lassen\b|\bdejar vibrar\b/i;

/** A chord symbol as a name: root, quality and bass. Source: MusicXML 4.0, `harmony`, `kind-value`. */
export function readHarmony(harmony: XmlElement): readonly Bare[] {
  const root = childNamed(harmony, 'root');
  const kind = childNamed(harmony, 'kind');
  if (!root || !kind) return [];
  const text = kind.attributes['text'] ?? KINDS[kind.text.trim()] ?? '';
  const bass = childNamed(harmony, 'bass');
  const over = bass ? `/${spelled(bass, 'bass')}` : '';
  return [{ kind: 'chord', text: `${spelled(root, 'root')}${text}${over}` }];
}

const KINDS: Readonly<Record<string, string>> = {
  major: '',
  minor: 'm',
  dominant: '7',
  'major-seventh': 'maj7',
  'minor-seventh': 'm7',
  diminished: 'dim',
  'diminished-seventh': 'dim7',
  augmented: 'aug',
  'half-diminished': 'm7♭5',
  'suspended-fourth': 'sus4',
  'suspended-second': 'sus2',
  'major-sixth': '6',
  'minor-sixth': 'm6',
  'dominant-ninth': '9',
};

function spelled(element: XmlElement, name: 'root' | 'bass'): string {
  const alter = Number(childText(element, `${name}-alter`) ?? 0);
  return (childText(element, `${name}-step`) ?? '') + (alter > 0 ? '♯' : alter < 0 ? '♭' : '');
}

const QUARTERS_PER_UNIT: Readonly<Record<string, number>> = {
  breve: 8,
  whole: 4,
  half: 2,
  quarter: 1,
  eighth: 0.5,
  '16th': 0.25,
  '32nd': 0.125,
};

function metronomeOf(direction: XmlElement): number {
  for (const element of descendants(direction)) {
    if (element.name !== 'metronome') continue;
    const unit = QUARTERS_PER_UNIT[childText(element, 'beat-unit') ?? ''] ?? NaN;
    const dots = childrenNamed(element, 'beat-unit-dot').length;
    const number = /\d+([.,]\d+)?/.exec(childText(element, 'per-minute') ?? '')?.[0].replace(',', '.');
    return unit * (2 - 0.5 ** dots) * Number(number ?? NaN);
  }
  return NaN;
}
