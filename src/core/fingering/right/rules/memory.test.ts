import { describe, expect, it } from 'vitest';
import { barXml, problemFrom } from '../../../../../tests/helpers/music';
import {
  ANY_FINGERS,
  fingersAfter,
  type FingersPart,
  fingersKey,
  NO_FINGERS,
  NO_THUMB,
  type Played,
  sharingFor,
  thumbAfter,
} from './memory';
import { KEEP, STATIONS, THUMB, turnMode } from './modes';
import { plainSetting } from './setting';
import { fingerOn } from './stations';
import { fingersPartCost } from './strokeCost';
import { forgetting, strokeGroup } from './strokes';

const problem = problemFrom(barXml([{ midi: 57, onset: 0, length: 1 }], 120));
const setting = plainSetting(problem);
const groupOn = (...strings: number[]) =>
  strokeGroup(
    problem,
    setting,
    0,
    strings.map((string) => ({ strike: 0, place: { string, fret: 2, finger: 2 }, slurred: false })),
  );
const after = (before: FingersPart, strings: readonly number[], letters: string, mode: Played['mode']) =>
  fingersAfter(before, sharingFor(groupOn(...strings), { letters: [...letters] as Played['letters'], mode }));

/** By string from the first on: rank + 1 of its finger. */
const stationsOf = ({ map }: FingersPart) => [1, 2, 3, 4, 5, 6].map((string) => fingerOn(map, string));

describe('what the fingers remember', () => {
  it('stations: each finger its string, through strokes of p', () => {
    const roll = [3, 2, 1].reduce(
      (hand, string, k) => after(hand, [string], 'ima'[k]!, STATIONS),
      NO_FINGERS,
    );
    expect(stationsOf(roll).slice(0, 3)).toEqual([3, 2, 1]);
    const rested = after(roll, [5], 'p', KEEP);
    expect(rested).toMatchObject({ map: roll.map, last: 0, since: 'thumb' });
  });
  it('a set that moves leaves its old strings; p that reaches over a finger takes its place away', () => {
    const chord = after(NO_FINGERS, [4, 3, 2], 'ima', STATIONS);
    expect(stationsOf(after(chord, [3], 'i', STATIONS)).slice(0, 4)).toEqual([0, 0, 1, 0]);
    expect(stationsOf(after(chord, [3], 'p', KEEP)).slice(0, 4)).toEqual([0, 3, 2, 0]);
  });
  it('a turn: the last finger, whatever p plays between, and no strings of others', () => {
    const line = after(after(NO_FINGERS, [2], 'i', turnMode.im), [5], 'p', KEEP);
    expect(line).toMatchObject({ mode: turnMode.im, last: 1, string: 2, since: 'thumb' });
    expect(after(line, [4], 'p', THUMB)).toMatchObject({ mode: THUMB, last: 0 });
  });
  it('knows no times: equal hands have equal keys however long ago they played', () => {
    const [a, b] = [0, 1].map(() => after(NO_FINGERS, [3], 'i', STATIONS));
    expect(fingersKey(a!)).toBe(fingersKey(b!));
  });
  it('what comes after a forgotten stroke costs nothing, and its stations are hazy', () => {
    const sharing = sharingFor(forgetting(groupOn(3)), { letters: ['i'], mode: STATIONS });
    expect(fingersAfter(NO_FINGERS, sharing)).toBe(ANY_FINGERS);
    const next = sharingFor(groupOn(2), { letters: ['a'], mode: STATIONS });
    expect(fingersPartCost(ANY_FINGERS, groupOn(2), next, problem.hand)).toBe(0);
    // From then on only what conflicts with the last stroke is known to cost.
    const hazy = fingersAfter(ANY_FINGERS, next);
    expect(hazy).toMatchObject({ hazy: true });
    expect(after(hazy, [3], 'a', STATIONS)).toMatchObject({ hazy: false });
  });
});

describe('what the thumb remembers', () => {
  it('its string for one stroke of the hand', () => {
    const p = thumbAfter(NO_THUMB, sharingFor(groupOn(5), { letters: ['p'], mode: KEEP }));
    expect(p).toMatchObject({ string: 5, alone: true });
    expect(thumbAfter(p, sharingFor(groupOn(3), { letters: ['i'], mode: STATIONS }))).toEqual(NO_THUMB);
  });
});
