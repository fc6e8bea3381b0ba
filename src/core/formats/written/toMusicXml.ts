/** Written music as a MusicXML document, the one form that everything behind the import reads. */
import { lcm } from '../../music/fraction';
import { beamsOf, type Metre } from './beams';
import type { WrittenBar, WrittenEvent, WrittenMusic, WrittenPart, WrittenPitch } from './writtenMusic';

/** Source of the elements and their order: MusicXML 4.0, partwise. */
export function toMusicXml(music: WrittenMusic): string {
  const list = music.parts.map(
    (part, k) => `<score-part id="P${k + 1}"><part-name>${escapeText(part.name)}</part-name></score-part>`,
  );
  const parts = music.parts.map((part, k) => `<part id="P${k + 1}">\n${partXml(part)}</part>\n`);
  return (
    '<?xml version="1.0" encoding="UTF-8"?>\n<score-partwise version="4.0">\n' +
    `<work><work-title>${escapeText(music.title)}</work-title></work>\n` +
    `<part-list>${list.join('')}</part-list>\n${parts.join('')}</score-partwise>\n`
  );
}

function partXml(part: WrittenPart): string {
  const dens = part.bars.flatMap((bar) =>
    bar.voices.flatMap((voice) => voice.map((event) => event.quarters.den)),
  );
  const divisions = dens.reduce(lcm, 1);
  let metre: Metre = { beats: 4, beatType: 4 };
  return part.bars
    .map((bar, k) => {
      metre = bar.metre ?? metre;
      return barXml(part, bar, { first: k === 0, divisions, metre });
    })
    .join('');
}

interface Setting {
  readonly first: boolean;
  readonly divisions: number;
  readonly metre: Metre;
}

function barXml(part: WrittenPart, bar: WrittenBar, { first, divisions, metre }: Setting): string {
  const voices = bar.voices.map((voice, k) => voiceXml(voice, k + 1, divisions, beamsOf(voice, metre)));
  const content = voices
    .map(({ xml, ticks }, k) =>
      k < voices.length - 1 && ticks > 0 ? `${xml}<backup><duration>${ticks}</duration></backup>\n` : xml,
    )
    .join('');
  const implicit = bar.implicit ? ' implicit="yes"' : '';
  return `<measure number="${escapeText(bar.number)}"${implicit}>\n${barline(bar, 'left')}${attributesXml(part, bar, first, divisions)}${tempoXml(bar)}${content}${barline(bar, 'right')}</measure>\n`;
}

function attributesXml(part: WrittenPart, bar: WrittenBar, first: boolean, divisions: number): string {
  const mode = bar.mode ? `<mode>${bar.mode}</mode>` : '';
  const rows = [
    first ? `<divisions>${divisions}</divisions>` : '',
    bar.fifths === null ? '' : `<key><fifths>${bar.fifths}</fifths>${mode}</key>`,
    bar.metre
      ? `<time><beats>${bar.metre.beats}</beats><beat-type>${bar.metre.beatType}</beat-type></time>`
      : '',
    first
      ? `<clef><sign>${part.clef.sign}</sign><line>${part.clef.line}</line>${part.clefOctave ? `<clef-octave-change>${part.clefOctave}</clef-octave-change>` : ''}</clef>`
      : '',
  ].join('');
  return rows ? `<attributes>${rows}</attributes>\n` : '';
}

const tempoXml = (bar: WrittenBar) =>
  bar.quartersPerMinute === null
    ? ''
    : `<direction placement="above"><direction-type><metronome><beat-unit>quarter</beat-unit><per-minute>${bar.quartersPerMinute}</per-minute></metronome></direction-type><sound tempo="${bar.quartersPerMinute}"/></direction>\n`;

function barline(bar: WrittenBar, side: 'left' | 'right'): string {
  const rows =
    side === 'left'
      ? [
          bar.repeatStart ? '<bar-style>heavy-light</bar-style>' : '',
          bar.endingStart ? `<ending number="${escapeText(bar.endingStart)}" type="start"/>` : '',
          bar.repeatStart ? '<repeat direction="forward"/>' : '',
        ]
      : [
          bar.repeatEnd
            ? '<bar-style>light-heavy</bar-style>'
            : bar.sectionEnd
              ? '<bar-style>light-light</bar-style>'
              : '',
          bar.endingStop ? `<ending number="${escapeText(bar.endingStop)}" type="stop"/>` : '',
          bar.repeatEnd ? '<repeat direction="backward"/>' : '',
        ];
  const inner = rows.join('');
  return inner ? `<barline location="${side}">${inner}</barline>\n` : '';
}

function voiceXml(
  voice: readonly WrittenEvent[],
  number: number,
  divisions: number,
  beams: readonly string[],
) {
  let ticks = 0;
  let xml = '';
  for (const [at, event] of voice.entries()) {
    const duration = (event.quarters.num * divisions) / event.quarters.den;
    if (!event.grace) ticks += duration;
    for (const words of event.words) {
      xml += `<direction><direction-type><words>${escapeText(words)}</words></direction-type></direction>\n`;
    }
    if (event.space) xml += `<forward><duration>${duration}</duration></forward>\n`;
    else if (event.pitches.length === 0) xml += noteXml(event, null, duration, number);
    else
      for (const k of event.pitches.keys())
        xml += noteXml(event, k, duration, number, k === 0 ? beams[at] : '');
  }
  return { xml, ticks };
}

const GRACES = { slashed: '<grace slash="yes"/>', plain: '<grace/>' } as const;

const pitchXml = ({ step, alter, octave }: WrittenPitch) =>
  `<pitch><step>${step}</step>${alter ? `<alter>${alter}</alter>` : ''}<octave>${octave}</octave></pitch>`;

const tupletXml = ({ actual, normal }: NonNullable<WrittenEvent['tuplet']>) =>
  `<time-modification><actual-notes>${actual}</actual-notes><normal-notes>${normal}</normal-notes></time-modification>`;

const maybeTag = (name: string, content: string | null) => (content ? `<${name}>${content}</${name}>` : '');

const lyricXml = ({ lyric }: WrittenEvent) => maybeTag('lyric', lyric && maybeTag('text', escapeText(lyric)));

const slursXml = ({ slurStops, slurStarts }: WrittenEvent) => [
  ...slurStops.map((number) => `<slur type="stop" number="${number}"/>`),
  ...slurStarts.map((number) => `<slur type="start" number="${number}"/>`),
];

/** What the first note of a chord has, and what each of them has. */
const notationsXml = (event: WrittenEvent, head: boolean) =>
  [...(head ? [...slursXml(event), ...event.notations] : []), ...(event.ofEach ?? [])].join('');

function noteXml(event: WrittenEvent, k: number | null, duration: number, voice: number, beams = ''): string {
  const pitch = event.pitches[k ?? -1] ?? null;
  const tie = event.ties[k ?? -1] ?? { start: false, stop: false };
  const head = k === null || k === 0;
  const { grace, type, tuplet } = event;
  const tieRows = (name: string) =>
    (tie.stop ? `<${name} type="stop"/>` : '') + (tie.start ? `<${name} type="start"/>` : '');
  const notations = tieRows('tied') + notationsXml(event, head);
  return (
    '<note>' +
    (grace ? GRACES[grace] : '') +
    (head ? '' : '<chord/>') +
    (pitch ? pitchXml(pitch) : type === null ? '<rest measure="yes"/>' : '<rest/>') +
    (grace ? '' : `<duration>${duration}</duration>`) +
    tieRows('tie') +
    `<voice>${voice}</voice>` +
    maybeTag('type', type) +
    '<dot/>'.repeat(event.dots) +
    (tuplet ? tupletXml(tuplet) : '') +
    beams +
    maybeTag('notations', notations) +
    (head ? lyricXml(event) : '') +
    '</note>\n'
  );
}

/** Control characters, which XML does not allow, go. */
export const escapeText = (text: string): string =>
  text

    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;');
