/** Repeats, endings, jumps and section lines of a `<measure>`. */
import type { Jumps, Measure } from '../../score/model';
import { MOST_REPEATS } from '../limits';
import { childNamed, childrenNamed, descendants, type XmlElement } from './xmlTree';

export type BarMarks = Pick<
  Measure,
  'repeatStart' | 'repeatEnd' | 'repeatTimes' | 'ending' | 'endingStops' | 'jumps' | 'sectionEnd'
>;

export function readBarMarks(measure: XmlElement): BarMarks {
  const barlines = childrenNamed(measure, 'barline');
  const repeats = barlines.flatMap((line) => childrenNamed(line, 'repeat'));
  const endings = barlines.flatMap((line) => childrenNamed(line, 'ending'));
  const backward = repeats.find((repeat) => repeat.attributes['direction'] === 'backward');
  const times = Number(backward?.attributes['times'] ?? 2);
  return {
    repeatStart: repeats.some((repeat) => repeat.attributes['direction'] === 'forward'),
    repeatEnd: backward !== undefined,
    repeatTimes: Number.isInteger(times) && times >= 1 ? Math.min(times, MOST_REPEATS) : 2,
    ending: endings.find((one) => one.attributes['type'] === 'start')?.attributes['number'] ?? null,
    endingStops: endings.some((one) => /^(stop|discontinue)$/.test(one.attributes['type'] ?? '')),
    jumps: readJumps(measure),
    sectionEnd: barlines.some(
      (line) =>
        line.attributes['location'] !== 'left' &&
        /^(light-light|light-heavy|heavy-light|heavy-heavy)$/.test(
          childNamed(line, 'bar-style')?.text.trim() ?? '',
        ),
    ),
  };
}

/** The sounds say it plainly; words are read where a program writes nothing else. */
function readJumps(measure: XmlElement): Jumps {
  const found = [...descendants(measure)];
  const sounds = found.filter((element) => element.name === 'sound');
  const words = found
    .filter((element) => element.name === 'words')
    .map((element) => element.text.trim())
    .join(' \n ');
  const has = (attribute: string) => sounds.some((sound) => sound.attributes[attribute] !== undefined);
  const isSign = (name: string) => found.some((element) => element.name === name);
  const toCoda = has('tocoda') || /\bto coda\b|\bal coda\b(?=.*⊕)/i.test(words);
  return {
    segno: has('segno') || isSign('segno'),
    // The sign stands at both places; where words or sound say "to", it is the departure.
    coda: has('coda') || (isSign('coda') && !toCoda),
    toCoda,
    daCapo: has('dacapo') || /\bD\.? ?C\.?(\s|$)|\bda capo\b/i.test(words),
    dalSegno: has('dalsegno') || /\bD\.? ?S\.?(\s|$)|\bdal segno\b/i.test(words),
    fine: has('fine') || /^\s*fine\s*$/im.test(words),
  };
}
