/** What single rules charge, worked out by hand: prices of the table, measures from the instrument. */
import { describe, expect, it } from 'vitest';
import { at, chords, chordsAt, onClock, wayTerms } from '../../../../../tests/helpers/handRules';
import { barXml, problemFrom } from '../../../../../tests/helpers/music';
import { movementMs } from '../../../instrument/handProfile';
import type { FingeringProblem } from '../../problem/problem';
import { handState } from './handState';
import { handWayMm } from './handWay';
import { Bill, priceOf } from './ledger';
import type { Placement } from './place';
import { entryCost, measureShift, stateCost, transitionCost } from './prices';
import { chargeLineFinger } from './connections';
import { hopMs } from './fingers';
import { type LeftTermId } from './terms';
import {
  CARRIER_SHARE,
  CROSSED_IN_LINE,
  CHANGED_IN_CHORDS,
  EXCHANGED,
  HOP_UNDER_FIGURE,
  INDEX_OPENS,
  RELEASE_SHARE,
  UNUSUAL_FORM,
  WIDE_FORM,
} from './shares';

const shiftBetween = (
  problem: FingeringProblem,
  before: readonly Placement[],
  after: readonly Placement[],
) => {
  const [a, b] = problem.moments;
  return measureShift(problem, a!, handState(a!.struck, before, null), b!, handState(b!.struck, after, null));
};

describe('a change of position', () => {
  // E on string 4, then on: all lines below stop one note by one finger.
  const up = chords([52, 60], [56, 64]);
  it('is carried by a finger that stays, one that slides, all that slide, or nothing', () => {
    expect(shiftBetween(chords([52], [56]), [at(4, 2, 1)], [at(4, 6, 1)])?.carrier).toBe('guide');
    expect(shiftBetween(up, [at(4, 2, 2), at(2, 1, 1)], [at(4, 6, 2), at(2, 5, 1)])?.carrier).toBe('shape');
    expect(shiftBetween(chords([52], [62]), [at(4, 2, 1)], [at(2, 3, 2)])).toBeNull();
    expect(shiftBetween(chords([52], [64]), [at(4, 2, 1)], [at(3, 9, 1)])?.carrier).toBe('none');
    const far = chords([52, 57], [52, 67]);
    const onto = shiftBetween(far, [at(4, 2, 1), at(3, 2, 2)], [at(4, 2, 1), at(3, 12, 4)]);
    expect(onto).toMatchObject({ carrier: 'pivot', finger: 1 });
  });

  it('costs its difficulty in bits of the part that is felt, and what its haste says', () => {
    const problem = chords([52], [59]);
    const terms = wayTerms(problem, [at(4, 2, 1)], [at(4, 9, 1)]);
    const mm = handWayMm(2, 9, problem.fretboard);
    const bits = Math.log2(1 + (mm * CARRIER_SHARE.guide) / 25);
    expect(terms.get('shiftDistance')).toBe(Math.round(problem.weights.shiftDistance * bits));
    expect(terms.get('shift')).toBe(priceOf(problem.weights, 'shift', CARRIER_SHARE.guide));
    expect(terms.get('position')).toBe(priceOf(problem.weights, 'position', 7));
    const share = movementMs(mm, problem.hand) / (RELEASE_SHARE * 1000);
    expect(terms.get('shiftHaste') ?? 0).toBe(
      priceOf(problem.weights, 'shiftHaste', share * CARRIER_SHARE.guide),
    );
  });

  it('squeaks only when every guide runs along a wound string', () => {
    const wound = wayTerms(chords([52], [56]), [at(4, 2, 1)], [at(4, 6, 1)]);
    const plain = wayTerms(chords([61], [65]), [at(2, 2, 1)], [at(2, 6, 1)]);
    const both = wayTerms(up, [at(4, 2, 2), at(2, 1, 1)], [at(4, 6, 2), at(2, 5, 1)]);
    expect(wound.get('squeak')).toBe(priceOf(up.weights, 'squeak', 1));
    expect([plain.get('squeak'), both.get('squeak')]).toEqual([undefined, undefined]);
  });
});

describe('a finger', () => {
  it('pays for another string, by the time it has of its own', () => {
    const problem = chords([52], [57]);
    const terms = wayTerms(problem, [at(4, 2, 2)], [at(3, 2, 2)]);
    expect(terms.get('hop')).toBe(priceOf(problem.weights, 'hop', 1));
    const share = hopMs(problem, at(4, 2, 2), at(3, 2, 2)) / (RELEASE_SHARE * 1000);
    expect(terms.get('hopHaste') ?? 0).toBe(priceOf(problem.weights, 'hopHaste', share));
    expect(wayTerms(problem, [at(4, 2, 2)], [at(3, 2, 1)]).get('hop')).toBeUndefined();
  });

  it('has half of the step where its note lasts until the end, and all since it ended where it did not', () => {
    const quick = chordsAt(500, [52], [66]);
    const terms = wayTerms(quick, [at(4, 2, 2)], [at(1, 2, 2)]);
    const share = hopMs(quick, at(4, 2, 2), at(1, 2, 2)) / (RELEASE_SHARE * (60_000 / 500));
    expect(share).toBeGreaterThan(0.6);
    expect(terms.get('hopHaste')).toBe(priceOf(quick.weights, 'hopHaste', share));
    const rested = onClock(
      problemFrom(
        barXml(
          [
            { midi: 52, onset: 0, length: 1 },
            { midi: 57, onset: 4, length: 1 },
          ],
          640,
        ),
      ),
    );
    const after = wayTerms(rested, [at(4, 2, 2)], [at(3, 2, 2)]);
    const longer = hopMs(rested, at(4, 2, 2), at(3, 2, 2)) / (3 * (30_000 / 640));
    expect(after.get('hopHaste') ?? 0).toBe(priceOf(rested.weights, 'hopHaste', longer));
  });

  it('that takes a held note over from another is dear, and what is let go is cut', () => {
    const problem = problemFrom(
      barXml([
        { midi: 45, onset: 0, length: 4, voice: 2 },
        { midi: 60, onset: 0, length: 2 },
        { midi: 62, onset: 2, length: 2 },
      ]),
    );
    const [a, b] = problem.moments;
    const held = problem.strikes.findIndex(({ midi }) => midi === 45);
    const tune = b!.struck[0]!;
    const from = handState(a!.struck, [at(6, 5, 1), at(3, 5, 2)], null);
    const termsTo = (strikes: readonly number[], places: readonly Placement[]) => {
      const terms = new Map<LeftTermId, number>();
      transitionCost(problem, from, b!, handState(strikes, places, null), (term, cost) =>
        terms.set(term, (terms.get(term) ?? 0) + cost),
      );
      return terms;
    };
    const kept = termsTo([held, tune], [at(6, 5, 1), at(3, 7, 4)]);
    expect([kept.get('handOver'), kept.get('cutBass')]).toEqual([undefined, undefined]);
    const handed = termsTo([held, tune], [at(6, 5, 3), at(3, 7, 4)]);
    expect(handed.get('handOver')).toBe(priceOf(problem.weights, 'handOver', 1));
    // A quarter of two is lost: half of the value.
    const dropped = termsTo([tune], [at(3, 7, 4)]);
    expect(dropped.get('cutBass')).toBe(priceOf(problem.weights, 'cutBass', 0.3 + 0.7 * 0.5));
  });

  it('that goes on to the same fret as a barre swivels', () => {
    const problem = chords([53], [53, 60, 65]);
    const terms = wayTerms(problem, [at(4, 3, 1)], [at(4, 3, 1), at(3, 5, 3), at(2, 6, 4)]);
    expect(terms.get('hop')).toBeUndefined();
    const barred = wayTerms(
      chords([60], [53, 57, 60]),
      [at(2, 1, 1)],
      [at(4, 3, 3), at(3, 2, 2), at(2, 1, 1)],
    );
    expect(barred.get('hop')).toBeUndefined();
  });
});

describe('a hand that lies', () => {
  const spread = (...places: readonly Placement[]) => {
    const problem = chords(places.map((_place, k) => 52 + k));
    const terms = new Map<LeftTermId, number>();
    stateCost(problem, problem.moments[0]!, handState([...places.keys()], places, null), (term, cost) =>
      terms.set(term, (terms.get(term) ?? 0) + cost),
    );
    return { problem, terms };
  };
  it('is spread or squeezed between neighbours among the fingers that are down', () => {
    const wide = spread(at(4, 2, 1), at(3, 4, 2), at(2, 5, 3));
    expect(wide.terms.get('extension')).toBe(priceOf(wide.problem.weights, 'extension', INDEX_OPENS));
    const outer = spread(at(4, 2, 1), at(3, 3, 2), at(2, 5, 3));
    expect(outer.terms.get('extension')).toBe(priceOf(outer.problem.weights, 'extension', 1));
    const tight = spread(at(4, 2, 1), at(3, 2, 3));
    expect(tight.terms.get('contraction')).toBe(priceOf(tight.problem.weights, 'contraction', 2));
  });
  it('has room on one fret where its fingers lie far apart across the strings', () => {
    const crowding = (strings: readonly [number, number]) =>
      spread(at(strings[0], 7, 1), at(strings[1], 7, 2)).terms.get('contraction');
    const { problem } = spread(at(6, 7, 1), at(2, 7, 2));
    expect(crowding([6, 5])).toBe(priceOf(problem.weights, 'contraction', 1));
    expect(crowding([6, 3])).toBe(priceOf(problem.weights, 'contraction', 1));
    expect(crowding([6, 2])).toBe(priceOf(problem.weights, 'contraction', 0.5));
    expect(crowding([6, 1])).toBe(priceOf(problem.weights, 'contraction', 0.5));
  });
  it('lays its barre where the piece begins', () => {
    const problem = chords([53, 60, 65]);
    const barred = handState([0, 1, 2], [at(4, 3, 1), at(3, 5, 3), at(1, 3, 1)], null);
    // Two frets up, and out of the first position.
    const stay = priceOf(problem.weights, 'position', 2.8);
    expect(entryCost(problem, barred)).toBeGreaterThan(stay);
    expect(entryCost(problem, handState([0, 1], [at(4, 3, 1), at(3, 5, 3)], null))).toBe(stay);
  });
});

describe('rows of parallels', () => {
  const weightOf = (problem: FingeringProblem, term: LeftTermId, times = 1) =>
    priceOf(problem.weights, term, times);
  /** Sixths in one voice, so that they are read as a row; the last move is priced. */
  function lastMove(before: readonly Placement[], after: readonly Placement[]) {
    const rows = [
      [57, 66],
      [59, 67],
      [61, 69],
    ];
    const notes = rows.flatMap((row, k) => row.map((midi) => ({ midi, onset: 2 * k, length: 2 })));
    const problem = problemFrom(barXml(notes, 60));
    const terms = new Map<LeftTermId, number>();
    const [, b, c] = problem.moments;
    const add = (term: LeftTermId, cost: number) => void terms.set(term, (terms.get(term) ?? 0) + cost);
    transitionCost(problem, handState(b!.struck, before, null), c!, handState(c!.struck, after, null), add);
    return { problem, terms };
  }

  it('cost nothing where one finger guides and the strings stay, part of it where the other is exchanged', () => {
    const stay = lastMove([at(3, 4, 2), at(1, 3, 1)], [at(3, 6, 2), at(1, 5, 1)]);
    expect(stay.terms.get('parallelFinger') ?? 0).toBe(0);
    expect(stay.terms.get('parallelString') ?? 0).toBe(0);
    const { problem, terms } = lastMove([at(3, 4, 2), at(1, 3, 1)], [at(3, 6, 2), at(1, 5, 3)]);
    expect(terms.get('parallelFinger')).toBe(
      weightOf(problem, 'parallelFinger', EXCHANGED) + weightOf(problem, 'parallelFinger', UNUSUAL_FORM),
    );
  });
  it('cost the whole where no finger guides, and each note that leaves its string', () => {
    const lost = lastMove([at(3, 4, 2), at(1, 3, 1)], [at(3, 6, 3), at(1, 5, 2)]);
    const each = weightOf(lost.problem, 'parallelFinger', EXCHANGED);
    const form = weightOf(lost.problem, 'parallelFinger', UNUSUAL_FORM);
    expect(lost.terms.get('parallelFinger')).toBe(2 * each + weightOf(lost.problem, 'parallelFinger') + form);
    const away = lastMove([at(3, 4, 2), at(1, 3, 1)], [at(4, 11, 4), at(2, 10, 3)]);
    expect(away.terms.get('parallelString')).toBe(2 * weightOf(away.problem, 'parallelString'));
  });
  it('have the fingers of their form: thirds 2 1 and 3 1, sixths 2 1 and 2 3', () => {
    const unusual = (low: Placement, high: Placement) => {
      const guided = [at(low.string, low.fret - 2, low.finger), at(high.string, high.fret - 2, high.finger)];
      const { problem, terms } = lastMove(guided, [low, high]);
      return (terms.get('parallelFinger') ?? 0) === weightOf(problem, 'parallelFinger', UNUSUAL_FORM);
    };
    expect(unusual(at(3, 6, 2), at(1, 5, 1))).toBe(false);
    expect(unusual(at(3, 6, 4), at(1, 5, 3))).toBe(true);
    expect(unusual(at(3, 7, 2), at(1, 7, 3))).toBe(false);
    expect(unusual(at(3, 7, 3), at(1, 7, 4))).toBe(true);
    expect(unusual(at(2, 6, 2), at(1, 5, 1))).toBe(false);
    expect(unusual(at(2, 6, 4), at(1, 5, 3))).toBe(true);
    expect(unusual(at(2, 7, 3), at(1, 5, 1))).toBe(false);
    expect(unusual(at(2, 7, 4), at(1, 5, 1))).toBe(true);
    // Tenths and what is wider have none.
    expect(unusual(at(4, 7, 3), at(1, 7, 4))).toBe(false);
  });
  it('are wide on neighbouring strings: sixths leave a string between', () => {
    const wide = lastMove([at(3, 4, 2), at(1, 3, 1)], [at(2, 2, 1), at(1, 5, 4)]);
    const weight = (times: number) => weightOf(wide.problem, 'parallelString', times);
    expect(wide.terms.get('parallelString')).toBe(weight(1) + weight(WIDE_FORM));
    const open = lastMove([at(3, 4, 2), at(1, 3, 1)], [at(2, 2, 1), at(1, 0, 0)]);
    expect(open.terms.get('parallelString')).toBe(weight(1));
  });
});

describe('a pitch that another voice strikes where it lies', () => {
  it('keeps its finger, and may as well go to another string', () => {
    const problem = problemFrom(
      barXml([
        { midi: 62, onset: 0, length: 2, voice: 1 },
        { midi: 62, onset: 2, length: 2, voice: 2 },
      ]),
    );
    const wayTo = (place: Placement) => wayTerms(problem, [at(2, 3, 3)], [place]);
    expect(wayTo(at(2, 3, 4)).get('fingerChanged')).toBe(priceOf(problem.weights, 'fingerChanged', 1));
    expect(wayTo(at(2, 3, 3)).get('fingerChanged') ?? 0).toBe(0);
    expect(wayTo(at(3, 7, 4)).get('placeChanged') ?? 0).toBe(0);
  });
});

describe('other fingers on the notes of a chord', () => {
  const changed = (second: readonly number[], ...last: readonly Placement[]) => {
    const problem = chords([52, 57, 60], second);
    const before = [at(4, 2, 2), at(3, 2, 3), at(2, 1, 1)];
    return {
      problem,
      cost: wayTerms(problem, before, [at(4, 2, 3), at(3, 2, 4), ...last]).get('fingerChanged'),
    };
  };
  it('are dear where it comes again, and taken with the shape of the next one', () => {
    const again = changed([52, 57, 60], at(2, 1, 1));
    expect(again.cost).toBe(2 * priceOf(again.problem.weights, 'fingerChanged', 1));
    const other = changed([52, 57, 62], at(2, 3, 4));
    expect(other.cost).toBe(2 * priceOf(other.problem.weights, 'fingerChanged', CHANGED_IN_CHORDS));
  });
});

describe('one finger for two notes of a voice', () => {
  const link = { slid: false, manner: 'figure', semitones: 5, hurry: 0, inChords: false } as const;
  const charged = (kind: 'line' | 'bassLine', a: Placement, b: Placement) => {
    const problem = chords([53], [43]);
    const terms = new Map<LeftTermId, number>();
    const bill = new Bill(problem, (term, amount) => void terms.set(term, (terms.get(term) ?? 0) + amount));
    chargeLineFinger(a, b, { ...link, kind }, bill);
    return { problem, terms };
  };
  it('leaves its string at half the price with the bass of a figure: the whole grip is taken anew', () => {
    const [from, to] = [at(4, 3, 3), at(6, 5, 3)];
    const { problem, terms } = charged('bassLine', from, to);
    expect(terms.get('lineHop')).toBe(priceOf(problem.weights, 'lineHop', HOP_UNDER_FIGURE));
    expect(charged('line', from, to).terms.get('lineHop')).toBe(priceOf(problem.weights, 'lineHop', 1));
  });
  it('does not lie over another on its string at the nut', () => {
    const { problem, terms } = charged('line', at(1, 2, 4), at(1, 3, 3));
    expect(terms.get('order')).toBe(priceOf(problem.weights, 'order', CROSSED_IN_LINE));
    expect(charged('line', at(1, 2, 3), at(1, 3, 4)).terms.get('order') ?? 0).toBe(0);
    // Higher up the hand moves: 4, then 1 two frets on.
    expect(charged('line', at(1, 5, 4), at(1, 7, 1)).terms.get('order') ?? 0).toBe(0);
  });
});

describe('a quick run', () => {
  const slideAt = (bpm: number, to = 4) => {
    const notes = [64, 66, 68, 69].map((midi, k) => ({ midi, onset: k, length: 1 }));
    const problem = onClock(problemFrom(barXml(notes, bpm)));
    const terms = new Map<LeftTermId, number>();
    const [, b, c] = problem.moments;
    const add = (term: LeftTermId, cost: number) => void terms.set(term, (terms.get(term) ?? 0) + cost);
    const from = handState(b!.struck, [at(1, 2, 1)], null);
    transitionCost(problem, from, c!, handState(c!.struck, [at(1, to, 1)], null), add);
    return { problem, terms };
  };
  it('does not slide a finger along, which a slower one may', () => {
    const quick = slideAt(240);
    expect(quick.terms.get('lineSlide')).toBe(priceOf(quick.problem.weights, 'lineSlide', 1));
    expect(slideAt(70).terms.get('lineSlide') ?? 0).toBe(0);
  });
  it('leaves a semitone to the next finger: a slide would hold it up', () => {
    const quick = slideAt(240, 3);
    expect(quick.terms.get('lineSlide')).toBe(priceOf(quick.problem.weights, 'lineSlide', 3));
    expect(slideAt(70, 3).terms.get('lineSlide')).toBe(priceOf(quick.problem.weights, 'lineSlide', 1));
  });
  it('shifts at a higher price', () => {
    expect(slideAt(240).terms.get('shift')!).toBeGreaterThan(slideAt(70).terms.get('shift')!);
  });
});
