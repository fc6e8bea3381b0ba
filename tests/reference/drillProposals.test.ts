/** Drills that the demo pieces ask for: each with its reason, none for what a piece has not. */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { chosenOf } from '../../src/core/drills/drill';
import { maybeDrillKind } from '../../src/core/drills/kinds/all';
import { drillsFor } from '../../src/core/drills/proposals';
import { Planner } from '../../src/core/fingering/planner';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import { barXml, scoreOrThrow } from '../helpers/music';

const folder = new URL('../../demo/', import.meta.url);

function proposed(xml: string) {
  const score = scoreOrThrow(xml);
  const plan = new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM).plan(new Map());
  return { score, plan, drills: drillsFor(score, plan) };
}

describe.each(readdirSync(folder))('%s', (name) => {
  const { score, plan, drills } = proposed(readFileSync(new URL(name, folder), 'utf8'));
  const kinds = drills.map(({ kind }) => kind);

  it('asks for one to three drills that there are, with the bars that ask', () => {
    expect(drills.length).toBeGreaterThanOrEqual(1);
    expect(drills.length).toBeLessThanOrEqual(3);
    const numbers = new Set(score.measures.map(({ number }) => number));
    for (const { kind, chosen, because, bars } of drills) {
      const row = maybeDrillKind(kind)!;
      // What is chosen is among the values of the kind.
      expect(chosenOf(row, chosen)).toMatchObject(chosen);
      expect(because).toMatch(/\d/);
      expect(bars.length).toBeGreaterThan(0);
      expect(bars.every((bar) => numbers.has(bar))).toBe(true);
    }
  });

  it('asks for nothing that it has not', () => {
    const has = (texture: string) => plan.figures.some((figure) => figure.texture === texture);
    expect(kinds.includes('barres') && plan.barres.length === 0).toBe(false);
    expect(kinds.includes('slur-pairs') && score.ligados.length === 0).toBe(false);
    expect(kinds.includes('tremolo') && !has('tremolo')).toBe(false);
    expect(kinds.includes('natural-harmonics')).toBe(
      score.notes.some(({ harmonic }) => harmonic === 'natural'),
    );
  });
});

describe('a piece of its own kind', () => {
  it('in tremolo asks for the tremolo, in its order', () => {
    const { drills } = proposed(readFileSync(new URL('rain-on-tin.musicxml', folder), 'utf8'));
    expect(drills.find(({ kind }) => kind === 'tremolo')?.chosen).toEqual({ order: 'pami' });
  });

  it('of four open notes asks for nothing', () => {
    const notes = [64, 59, 55, 50].map((midi, onset) => ({ midi, onset, length: 2 }));
    expect(proposed(barXml(notes)).drills).toEqual([]);
  });
});
