import { describe, expect, it } from 'vitest';
import type { ChoiceReason } from '../fingering/left/explain/reasons';
import type { HandAction, HandActionKind } from '../fingering/left/explain/handScript';
import { actionText, choiceReasonText, remedyText, REMEDIES } from './hand';

const place = () => ({ bar: '2', beat: '3' });
const REASONS: readonly ChoiceReason[] = [
  { code: 'fingerHolds', finger: 3, uid: 'n1', role: 'bass', midi: 43, untilTicks: 4 },
  { code: 'shift', distanceMm: 62.4, windowMs: 180.2, neededMs: 239.7, toPosition: 5 },
  { code: 'cut', uid: 'n1', role: 'melody', midi: 64, quarters: 0.5 },
  { code: 'stretch', low: 1, high: 4, mm: 121.3, atEaseMm: 110 },
  { code: 'barre', fret: 5, strings: 4 },
  { code: 'hop', finger: 2 },
  { code: 'term', term: 'position', difference: 14 },
];

describe('reasons beside a choice', () => {
  it('say what holds, how far and in what time', () => {
    expect(choiceReasonText(REASONS[0]!, place, 96)).toBe('3 holds the bass G until beat 3');
    expect(choiceReasonText(REASONS[1]!, place, 96)).toBe(
      'a 62 mm shift to V in 180 ms at ♩=96, about 240 needed',
    );
    expect(choiceReasonText(REASONS[2]!, place, 96)).toBe('lets the melody E go 0.5 beats early');
  });
  it.each(REASONS)('$code is short and complete', (reason) => {
    const text = choiceReasonText(reason, place, 96);
    expect(text).not.toMatch(/undefined|NaN|\[object/);
    expect(text.length).toBeLessThan(80);
  });
});

describe('remedies', () => {
  it('are named on their buttons', () => {
    const base = { target: 'n1', attribute: 'length', value: '1/2', quarters: 0.5 } as const;
    expect(remedyText({ ...base, kind: 'letGo' })).toBe('Let it go after 0.5 beats');
    for (const kind of Object.keys(REMEDIES) as (keyof typeof REMEDIES)[])
      expect(remedyText({ ...base, kind })).not.toMatch(/undefined|null/);
  });
});

describe('the script of the hand', () => {
  const action = (kind: HandActionKind, lastString = 2): HandAction => ({
    kind,
    finger: 3,
    grip: { fret: 5, firstString: 2, lastString },
    fromFret: 3,
    momentIndex: 0,
    ticks: 8,
    earliestTicks: 4,
    leadMs: 300,
  });
  it('is said in words', () => {
    expect(actionText(action('slide'), place)).toBe('slide 3 along string 2 from fret 3 to 5');
    expect(actionText(action('prepare'), place)).toBe(
      'place 3 on string 2, fret 5; it can lie from bar 2, beat 3',
    );
    expect(actionText(action('barre', 6), place)).toBe('lay 3 across strings 2 to 6, fret 5');
    expect(actionText(action('lift'), place)).toBe('lift 3');
  });
});
