/** Held against a hand that is simulated finger by finger, and crossings against every way to begin. */
import { describe, expect, it } from 'vitest';
import type { Pluck } from '../score/model';
import { crossingsIn, fewestCrossings, isUnfavourable } from './crossings';
import { type Plan, plantingScript, type Reopening } from './planting';
import { orders } from './vocabulary';

type Place = 'open' | 'planted' | 'closed';

/** What is wrong when a hand does what the script says; empty where nothing is. */
function faultsOf(script: readonly Plan[]): readonly string[] {
  const hand = new Map<Pluck, Place>([
    ['i', 'open'],
    ['m', 'open'],
    ['a', 'open'],
  ]);
  const faults: string[] = [];
  script.forEach(({ letter, plants, opens }, k) => {
    if (letter !== 'p') {
      if (k > 0 && hand.get(letter) !== 'planted') faults.push(`${k}: ${letter} plays from the air`);
      hand.set(letter, 'closed');
    }
    for (const finger of opens) {
      if (hand.get(finger) !== 'closed') faults.push(`${k}: ${finger} opens and was not closed`);
      hand.set(finger, 'open');
    }
    for (const finger of plants) {
      if (hand.get(finger) !== 'open') faults.push(`${k}: ${finger} is planted from ${hand.get(finger)}`);
      hand.set(finger, 'planted');
    }
  });
  return faults;
}

const letters = (text: string) => [...text] as Pluck[];

describe('planting', () => {
  // Source: handbook 6, "Script of the hand".
  it('puts down at once what goes up the strings, and one after the other what comes down', () => {
    const up = plantingScript(letters('pima'), 1, 'oneByOne');
    expect(up.map(({ plants }) => plants.join(''))).toEqual(['ima', '', '', '']);
    const down = plantingScript(letters('pami'), 1, 'oneByOne');
    expect(down.map(({ plants }) => plants.join(''))).toEqual(['a', 'm', 'i', '']);
  });

  it('opens all fingers on the thumb’s stroke, or each when it goes back', () => {
    const second = (reopening: Reopening) => plantingScript(letters('pami'), 2, reopening).slice(4);
    expect(second('together').map(({ opens }) => [...opens].sort().join(''))).toEqual(['aim', '', '', '']);
    expect(second('oneByOne').map(({ opens }) => opens.join(''))).toEqual(['a', 'm', 'i', '']);
  });

  it('asks nothing of a hand that it cannot do, in every order of the fingers after the thumb', () => {
    const rows = orders<Pluck>(['i', 'm', 'a']).map((rest): Pluck[] => ['p', ...rest]);
    for (const order of [...rows, letters('pimami'), letters('piaimi')])
      for (const reopening of ['oneByOne', 'together'] as const)
        expect([order, reopening, faultsOf(plantingScript(order, 4, reopening))]).toEqual([
          order,
          reopening,
          [],
        ]);
  });
});

describe('crossings', () => {
  it('are unfavourable where fingers and strings go opposite ways', () => {
    const at = (string: number, letter: string) => ({ string, letter });
    // Source: handbook 6: i to m towards a higher string agrees, m to i does not; m to i downwards agrees.
    expect(isUnfavourable(at(3, 'i'), at(2, 'm'))).toBe(false);
    expect(isUnfavourable(at(3, 'm'), at(2, 'i'))).toBe(true);
    expect(isUnfavourable(at(2, 'm'), at(3, 'i'))).toBe(false);
    expect(isUnfavourable(at(2, 'i'), at(3, 'm'))).toBe(true);
    expect(isUnfavourable(at(2, 'i'), at(2, 'm'))).toBe(false);
  });

  it('are fewest with the beginning that is chosen, of all that there are', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const places = Array.from({ length: 12 }, (_, k) => ({
        string: 1 + ((seed * 7 + k * k * seed + 3 * k) % 6),
        fret: 1,
        finger: 1,
      }));
      for (const order of ['im', 'ami']) {
        const all = [...order].map((_, k) => crossingsIn(places, order.slice(k) + order.slice(0, k)));
        expect(crossingsIn(places, fewestCrossings(places, order))).toBe(Math.min(...all));
      }
    }
  });
});
