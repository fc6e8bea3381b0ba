import { describe, expect, it } from 'vitest';
import { CLEF_8, documentXml, noteXml, scoreOrThrow } from '../../../../tests/helpers/music';
import { readScore } from './readScore';

const quarter = (midi: number, extra = '') => noteXml({ midi, onset: 0, length: 2, extra });
const PLAIN_CLEF = '<clef><sign>G</sign><line>2</line></clef>';
const TRANSPOSE = '<transpose><chromatic>0</chromatic><octave-change>-1</octave-change></transpose>';

describe('the octave of a guitar part (handbook, "Notation conventions")', () => {
  const first = (midi: number, attributes: string) => {
    const score = scoreOrThrow(documentXml([quarter(midi)], attributes));
    const octave = score.assumptions.find((one) => one.code === 'octave');
    return [score.notes[0]!.soundingMidi, octave?.code === 'octave' && octave.reading];
  };
  it('clef with an 8: as in the file', () => expect(first(52, CLEF_8)).toEqual([52, 'clef']));
  it('transposition: applied', () =>
    expect(first(64, PLAIN_CLEF + TRANSPOSE)).toEqual([52, 'transposition']));
  it('both, high enough: the transposition is applied', () =>
    expect(first(64, CLEF_8 + TRANSPOSE)).toEqual([52, 'both-applied']));
  it('both, too low for it: the clef alone', () =>
    expect(first(45, CLEF_8 + TRANSPOSE)).toEqual([45, 'both-clef']));
  it('neither, nothing below E3: written', () => expect(first(52, PLAIN_CLEF)).toEqual([40, 'written']));
  it('neither, something below: sounding', () => expect(first(47, PLAIN_CLEF)).toEqual([47, 'sounding']));
});

describe('time', () => {
  it('joins ties over the bar line into one note', () => {
    const score = scoreOrThrow(
      documentXml([quarter(52, '<tie type="start"/>'), quarter(52, '<tie type="stop"/>') + quarter(52)]),
    );
    expect(score.notes.map((note) => [note.onsetTicks, note.durationTicks])).toEqual([
      [0, 4],
      [4, 2],
    ]);
    expect(score.notes[0]!.tiedUids).toEqual(['n2']);
  });

  it('keeps a tie to another pitch as two notes', () => {
    const score = scoreOrThrow(
      documentXml([quarter(52, '<tie type="start"/>') + quarter(53, '<tie type="stop"/>')]),
    );
    expect(score.notes).toHaveLength(2);
  });

  it('counts chords, backups and a second voice from the right place', () => {
    const second = noteXml({ midi: 45, onset: 0, length: 4, voice: 2 });
    const score = scoreOrThrow(
      documentXml([
        quarter(60) +
          noteXml({ midi: 64, onset: 0, length: 2 }, true) +
          quarter(62) +
          `<backup><duration>4</duration></backup>${second}`,
      ]),
    );
    expect(score.notes.map((note) => [note.soundingMidi, note.onsetTicks])).toEqual([
      [45, 0],
      [60, 0],
      [64, 0],
      [62, 2],
    ]);
  });

  it('finds one resolution for triplets and sixteenths', () => {
    const change = '<attributes><divisions>3</divisions></attributes>';
    const triplet = noteXml({ midi: 60, onset: 0, length: 1 });
    const score = scoreOrThrow(documentXml([quarter(60), change + triplet.repeat(3) + quarter(62)]));
    expect(score.ticksPerQuarter).toBe(6);
    expect(score.notes.map((note) => note.onsetTicks)).toEqual([0, 6, 8, 10, 12]);
  });

  it('takes a pick-up bar at its own length and bars with repeats as they are marked', () => {
    const repeat = '<barline location="right"><repeat direction="backward"/></barline>';
    const score = scoreOrThrow(documentXml([quarter(60), quarter(60).repeat(4) + repeat]));
    expect(
      score.measures.map((measure) => [measure.startTicks, measure.durationTicks, measure.repeatEnd]),
    ).toEqual([
      [0, 2, false],
      [2, 8, true],
    ]);
  });

  it('derives a tempo where none is given, says so, and makes it slower for fast notes', () => {
    const slow = scoreOrThrow(documentXml([quarter(60).repeat(4)])).tempos[0]!;
    const fast = scoreOrThrow(documentXml([noteXml({ midi: 60, onset: 0, length: 1 }).repeat(32)], CLEF_8, 8))
      .tempos[0]!;
    expect(slow).toMatchObject({ assumed: true, quartersPerMinute: 88 });
    expect(fast.quartersPerMinute).toBeLessThan(slow.quartersPerMinute);
  });

  it('reads a metronome mark with a dot', () => {
    const mark =
      '<direction><direction-type><metronome><beat-unit>quarter</beat-unit><beat-unit-dot/><per-minute>60</per-minute></metronome></direction-type></direction>';
    expect(scoreOrThrow(documentXml([mark + quarter(60)])).tempos).toEqual([
      { tick: 0, quartersPerMinute: 90, assumed: false },
    ]);
  });

  it('reads slurs by number and printed fingering', () => {
    const marks = '<technical><fingering>4</fingering><string>3</string><pluck>m</pluck></technical>';
    const score = scoreOrThrow(
      documentXml([
        quarter(60, `<notations><slur type="start" number="2"/>${marks}</notations>`) +
          quarter(62, '<notations><slur type="stop" number="2"/></notations>'),
      ]),
    );
    expect(score.slurs).toEqual([{ fromUid: 'n1', toUid: 'n2' }]);
    expect(score.notes[0]!.printed).toEqual({ finger: 4, string: 3, pluck: 'm' });
  });

  it('takes a note below the open sixth string as a sixth tuned to D', () => {
    expect(scoreOrThrow(documentXml([quarter(38)])).tuningId).toBe('sixth-to-d');
  });
});

describe('bad input', () => {
  const errorOf = (xml: string) => {
    const result = readScore(xml);
    return result.ok ? null : result.error;
  };
  const good = documentXml([quarter(60), quarter(62)]);

  it('not XML', () => expect(errorOf('hello')).toMatchObject({ code: 'notXml', line: 1 }));
  it('truncated anywhere inside', () => {
    for (const share of [0.2, 0.5, 0.8, 0.99]) {
      expect(errorOf(good.slice(0, Math.floor(good.trimEnd().length * share)))?.code).toBe('notXml');
    }
  });
  it('entities', () => {
    const bomb = good.replace('?>\n', '?>\n<!DOCTYPE score-partwise [<!ENTITY a "b">]>\n');
    expect(errorOf(bomb)).toEqual({ code: 'entities', line: 2 });
  });
  it('wrong root', () => expect(errorOf('<html/>')).toEqual({ code: 'wrongRoot', root: 'html' }));
  it('timewise', () => expect(errorOf('<score-timewise/>')).toEqual({ code: 'timewise' }));
  it('no notes', () =>
    expect(errorOf(documentXml(['<note><rest/><duration>8</duration></note>']))).toEqual({
      code: 'noNotes',
    }));
  it('nothing but notes outside the instrument, with bar, voice and line of the first', () => {
    const rest = '<note><rest/><duration>8</duration></note>';
    const error = errorOf(documentXml([rest, `\n${quarter(90)}`]));
    expect(error).toMatchObject({
      code: 'outside',
      measure: '2',
      voice: '1',
      line: 3,
      note: 'F♯6',
      highest: 'B5',
    });
  });
  it.each(['-2', '0', '', 'x', 'Infinity'])('a note with the duration “%s”', (value) => {
    const bad = good.replace('<duration>2</duration>', `<duration>${value}</duration>`);
    expect(errorOf(bad)).toMatchObject({ code: 'duration', measure: '1', value });
  });
  it.each(['0', '-1', '1.5', '99999999'])('divisions of “%s”', (value) => {
    expect(errorOf(good.replace('<divisions>2<', `<divisions>${value}<`))).toMatchObject({
      code: 'divisions',
      value,
    });
  });
  it('a backup before the bar line', () => {
    expect(errorOf(documentXml([`<backup><duration>1</duration></backup>${quarter(60)}`]))).toMatchObject({
      code: 'backup',
      measure: '1',
    });
  });
  it('percussion', () => {
    expect(errorOf(good.replace(/<pitch>.*?<\/pitch>/g, '<unpitched/>'))).toMatchObject({
      code: 'percussion',
      measure: '1',
    });
  });
  it('an unreadable pitch', () => {
    expect(errorOf(good.replace('<step>C</step>', '<step>H</step>'))).toMatchObject({
      code: 'pitch',
      measure: '1',
    });
  });
});
