/** Drills as files: what Verovio, a general-purpose engraver, reads of each; touch points against formula and table. */
import { describe, expect, it } from 'vitest';
import { chosenOf, DRILLS_OF_EVERY_KIND } from '../helpers/drills';
import { drillScore } from '../../src/core/drills/drillScore';
import { maybeDrillKind } from '../../src/core/drills/kinds/all';
import { positionAtEase } from '../../src/core/drills/kinds/fingerPairs';
import { touchPoint } from '../../src/core/drills/kinds/naturalHarmonics';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { DEFAULT_PLAYER, maybePlayer } from '../../src/core/instrument/hands';
import { loadEngraver } from '../../src/workers/engrave';

interface MidiEvent {
  readonly on?: readonly string[];
}

describe('the MusicXML of a drill', () => {
  it.each(DRILLS_OF_EVERY_KIND.map((row) => [row.name, row] as const))(
    '%s has every note for Verovio',
    async (_name, { kind, chosen }) => {
      const { document, text } = drillScore(kind, chosen);
      const engraver = await loadEngraver();
      engraver.setOptions({ xmlIdSeed: 7 });
      expect(engraver.loadData(text)).toBeTruthy();
      const timemap = engraver.renderToTimemap({
        includeMeasures: false,
        includeRests: false,
      }) as readonly MidiEvent[];
      const theirs = timemap
        .flatMap(({ on = [] }) => on)
        .map((id) => (engraver.getMIDIValuesForElement(id) as { readonly pitch: number }).pitch)
        .sort((a, b) => a - b);
      const ours = document.score.notes
        // Written as they are stopped or as they sound; Verovio plays what is written.
        .map(({ soundingMidi }) => soundingMidi)
        .sort((a, b) => a - b);
      expect(theirs).toEqual(ours);
    },
  );
});

describe('natural harmonics', () => {
  // Source: handbook 3, touch points on 650 mm against the nearest fret wire.
  it.each([
    [12, 2, 325.0, 325.0],
    [7, 3, 216.7, 216.2],
    [19, 3, 433.3, 433.1],
    [5, 4, 162.5, 163.1],
    [4, 5, 130.0, 134.1],
    [9, 5, 260.0, 263.5],
  ])('at fret %i are touched where the table says', (fret, order, touchMm, wireMm) => {
    const found = touchPoint(fret, CONCERT_FRETBOARD);
    expect(found.order).toBe(order);
    expect(found.touchMm).toBeCloseTo(touchMm, 1);
    expect(found.wireMm).toBeCloseTo(wireMm, 1);
    // They mirror about the middle of the string.
    expect(found.touchMm + found.mirrorMm).toBeCloseTo(650, 6);
  });

  it('are told for the instrument at hand', () => {
    const kind = maybeDrillKind('natural-harmonics')!;
    const facts = (hand: string) => kind.facts!(chosenOf(kind, { nodes: '4' }), maybePlayer(hand)!);
    expect(facts('adult-medium')[0]).toMatch(
      /130\.0 mm from the nut, 4\.1 mm from the wire, towards the nut/,
    );
    expect(facts('child-half')[0]).toMatch(/106\.0 mm from the nut/);
  });
});

describe('finger pairs', () => {
  it('begin higher up the neck where the opening is hard for the hand', () => {
    const large = maybePlayer('adult-large')!;
    const small = maybePlayer('child-half')!;
    for (const pair of ['12', '14', '34'])
      expect(positionAtEase(pair, small)).toBeGreaterThanOrEqual(positionAtEase(pair, large));
    // 1 to 4 over four frets: 97.6 mm at I on 650 mm (handbook 3), which lies at ease for 110 mm.
    expect(positionAtEase('14', DEFAULT_PLAYER)).toBe(1);
  });
});
