/** A demo piece as MusicXML: clef with an 8 (pitches sound as they stand), beams by the beat, no fingering. */
import type { DemoPiece } from './pieces';

const DIVISIONS = 4;
const LENGTHS: Readonly<Record<string, { type: string; ticks: number }>> = {
  w: { type: 'whole', ticks: 16 },
  h: { type: 'half', ticks: 8 },
  q: { type: 'quarter', ticks: 4 },
  e: { type: 'eighth', ticks: 2 },
  s: { type: '16th', ticks: 1 },
};

interface Event {
  readonly pitches: readonly string[];
  readonly type: string;
  readonly dotted: boolean;
  readonly ticks: number;
  readonly onset: number;
  readonly slurStart: boolean;
  readonly slurStop: boolean;
  readonly hidden: boolean;
}

export function writeMusicXml(piece: DemoPiece): string {
  const voices = piece.voices.map(parseVoice);
  const measures = voices[0]!.map((_, k) =>
    measureXml(
      piece,
      k,
      voices.map((bars) => bars[k]!),
    ),
  );
  return `<?xml version="1.0" encoding="UTF-8"?>
<score-partwise version="4.0">
  <work>
    <work-title>${piece.title}</work-title>
  </work>
  <identification>
    <creator type="composer">Oculon demo</creator>
  </identification>
  <part-list>
    <score-part id="P1">
      <part-name>Guitar</part-name>
    </score-part>
  </part-list>
  <part id="P1">
${measures.join('\n')}
  </part>
</score-partwise>
`;
}

function parseVoice(text: string): Event[][] {
  let length = LENGTHS['q']!;
  let dotted = false;
  return text.split('|').map((bar) => {
    let onset = 0;
    const tokens = bar.match(/\(?(?:\[[^\]]*\]|[rx]|[A-G][#b]?\d)[whqes]?\.?\)?/g) ?? [];
    return tokens.map((token) => {
      const [, slurStart, body, letter, dot, slurStop] =
        /^(\()?(\[[^\]]*\]|[rx]|[A-G][#b]?\d)([whqes])?(\.)?(\))?$/.exec(token)!;
      if (letter) {
        length = LENGTHS[letter]!;
        dotted = dot === '.';
      }
      const ticks = dotted ? length.ticks * 1.5 : length.ticks;
      const pitches = body === 'r' || body === 'x' ? [] : body!.replace(/[[\]]/g, '').split(' ');
      const event = {
        pitches,
        type: length.type,
        dotted,
        ticks,
        onset,
        slurStart: !!slurStart,
        slurStop: !!slurStop,
        hidden: body === 'x',
      };
      onset += ticks;
      return event;
    });
  });
}

function measureXml(piece: DemoPiece, index: number, voices: readonly (readonly Event[])[]): string {
  const number = piece.upbeat ? index : index + 1;
  const lines = [`    <measure number="${number}"${number === 0 ? ' implicit="yes"' : ''}>`];
  if (index === 0) lines.push(attributesXml(piece), tempoXml(piece));
  voices.forEach((events, voice) => {
    const total = events.reduce((sum, event) => sum + event.ticks, 0);
    if (voice > 0) lines.push(`      <backup><duration>${total}</duration></backup>`);
    const beams = beamsOf(events, piece.beatQuarters * DIVISIONS);
    events.forEach((event, k) => lines.push(...eventXml(event, voice, voices.length, beams[k]!)));
  });
  lines.push('    </measure>');
  return lines.join('\n');
}

const attributesXml = (piece: DemoPiece) => `      <attributes>
        <divisions>${DIVISIONS}</divisions>
        <key><fifths>${piece.fifths}</fifths><mode>${piece.mode}</mode></key>
        <time><beats>${piece.beats}</beats><beat-type>${piece.beatType}</beat-type></time>
        <clef><sign>G</sign><line>2</line><clef-octave-change>-1</clef-octave-change></clef>
      </attributes>`;

function tempoXml(piece: DemoPiece): string {
  const dotted = piece.beatQuarters === 1.5;
  const perMinute = Math.round(piece.quartersPerMinute / piece.beatQuarters);
  return `      <direction placement="above">
        <direction-type><metronome><beat-unit>quarter</beat-unit>${dotted ? '<beat-unit-dot/>' : ''}<per-minute>${perMinute}</per-minute></metronome></direction-type>
        <sound tempo="${piece.quartersPerMinute}"/>
      </direction>`;
}

/** Beam values (one for each beam level) by event; an empty list where there is none. */
function beamsOf(events: readonly Event[], beatTicks: number): string[][] {
  const levels = (event: Event | undefined) =>
    event && event.pitches.length > 0 ? ({ eighth: 1, '16th': 2 }[event.type] ?? 0) : 0;
  const beatOf = (event: Event) => Math.floor(event.onset / beatTicks);
  return events.map((event, k) => {
    const joined = (other: Event | undefined, level: number) =>
      !!other && levels(other) >= level && beatOf(other) === beatOf(event);
    return Array.from({ length: levels(event) }, (_, index) => {
      const before = joined(events[k - 1], index + 1);
      const after = joined(events[k + 1], index + 1);
      return before ? (after ? 'continue' : 'end') : after ? 'begin' : '';
    }).filter((value) => value !== '');
  });
}

function eventXml(event: Event, voice: number, voiceCount: number, beams: readonly string[]): string[] {
  const stem = voiceCount === 1 ? '' : `<stem>${voice === 0 ? 'up' : 'down'}</stem>`;
  const tail = `<voice>${voice + 1}</voice><type>${event.type}</type>${event.dotted ? '<dot/>' : ''}`;
  if (event.hidden) return [`      <forward><duration>${event.ticks}</duration></forward>`];
  if (event.pitches.length === 0) {
    return [`      <note><rest/><duration>${event.ticks}</duration>${tail}</note>`];
  }
  const beam = beams.map((value, k) => `<beam number="${k + 1}">${value}</beam>`).join('');
  const slurs =
    (event.slurStop ? '<slur type="stop" number="1"/>' : '') +
    (event.slurStart ? '<slur type="start" number="1"/>' : '');
  return event.pitches.map((pitch, k) => {
    const [, step, sign, octave] = /^([A-G])([#b]?)(\d)$/.exec(pitch)!;
    const alter = sign ? `<alter>${sign === '#' ? 1 : -1}</alter>` : '';
    const notations = k === 0 && slurs ? `<notations>${slurs}</notations>` : '';
    return `      <note>${k > 0 ? '<chord/>' : ''}<pitch><step>${step}</step>${alter}<octave>${octave}</octave></pitch><duration>${event.ticks}</duration>${tail}${stem}${k === 0 ? beam : ''}${notations}</note>`;
  });
}
