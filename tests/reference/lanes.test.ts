/** The lanes under the score, on really engraved pages of the demo. */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { systemLanes, timeScaleOf } from '../../src/core/engraving/lanes';
import { Planner } from '../../src/core/fingering/planner';
import { readMusicXmlText } from '../../src/core/formats/musicxml/bytes';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { DEFAULT_PLAYER } from '../../src/core/instrument/hands';
import { engrave } from '../../src/workers/engrave';

const folder = new URL('../../demo/', import.meta.url);
const pieces = readdirSync(folder).filter((name) => name.endsWith('.musicxml'));

describe.each(pieces)('the lanes of %s', async (name) => {
  const source = readMusicXmlText(readFileSync(new URL(name, folder)));
  const document = source.ok ? readScore(source.value.text) : null;
  if (!source.ok || !document?.ok) throw new Error('the demo cannot be read');
  const { score } = document.value;
  const page = await engrave(source.value.text, document.value);
  const plan = new Planner(score, DEFAULT_PLAYER.fretboard, DEFAULT_PLAYER.hand).plan(new Map());
  const systems = page.systems.map((_system, k) => k);

  it('time runs from left to right, and every notehead stands where its lane begins', () => {
    for (const system of systems) {
      const scale = timeScaleOf(page, score, system)!;
      let last = -Infinity;
      for (let tick = scale.from; tick <= scale.to; tick++) {
        expect(scale.xOf(tick)).toBeGreaterThanOrEqual(last);
        last = scale.xOf(tick);
      }
      const boxes = page.notes.filter((box) => box.system === system);
      for (const lane of systemLanes(page, score, plan, system).rings.filter((one) => one.begins)) {
        const box = boxes.find((one) => one.uid === lane.ring.uid)!;
        // Seconds in a chord stand beside each other.
        expect(Math.abs((lane.sounding ?? lane.cut)!.x1 - (box.x + box.width / 2))).toBeLessThan(
          2 * box.width,
        );
      }
    }
  });

  it('each stopped note lies at its fret, and bars begin between their notes', () => {
    const fretOf = new Map(plan.notes.map((note) => [note.strike, note.fret]));
    for (const system of systems) {
      const { rings, bars } = systemLanes(page, score, plan, system);
      for (const { ring, fret } of rings) expect(fret).toBe(fretOf.get(ring.strike) ?? 0);
      const first = page.notes.filter((box) => box.system === system).map(({ uid }) => uid);
      const measures = new Set(
        score.notes.filter(({ uid }) => first.includes(uid)).map((note) => note.measureIndex),
      );
      expect(bars).toHaveLength(measures.size - 1);
      expect([...bars].sort((a, b) => a - b)).toEqual(bars);
    }
  });

  it('a finger is down wherever its note sounds as written; slides join frets of one string, barres lie where they are planned', () => {
    const { fingers } = plan;
    for (const { finger, string, fret, uid } of plan.notes) {
      if (!finger) continue;
      const { onsetTicks } = score.notes.find((note) => note.uid === uid)!;
      const down = fingers.filter(
        (one) => one.string === string && one.fromTicks <= onsetTicks && one.toTicks > onsetTicks,
      );
      expect(down).toContainEqual(expect.objectContaining({ finger, fret }));
    }
    for (const { fromTicks, toTicks } of fingers) expect(toTicks).toBeGreaterThan(fromTicks);
    const lanes = systems.map((system) => systemLanes(page, score, plan, system));
    for (const { from, to } of lanes.flatMap(({ slides }) => slides)) {
      expect(from).toMatchObject({ string: to.string, finger: to.finger });
      expect(from.fret).not.toBe(to.fret);
    }
    const barres = new Set(lanes.flatMap((one) => one.barres.map(({ barre }) => barre.fromUid)));
    expect(barres.size).toBe(plan.barres.length);
  });

  it('every note begins on one lane, and no string sounds twice at once', () => {
    const begun = systems.flatMap((system) =>
      systemLanes(page, score, plan, system).rings.filter((lane) => lane.begins),
    );
    expect(begun.map((lane) => lane.ring.uid).sort()).toEqual(plan.rings.map((ring) => ring.uid).sort());
    for (const system of systems) {
      const lanes = systemLanes(page, score, plan, system).rings;
      for (let string = 1; string <= 6; string++) {
        const ends = lanes
          .filter((lane) => lane.string === string)
          .map((lane) => ({
            x1: (lane.sounding ?? lane.overhang ?? lane.cut)!.x1,
            x2: (lane.overhang ?? lane.sounding)?.x2 ?? 0,
          }))
          .sort((a, b) => a.x1 - b.x1);
        for (let k = 1; k < ends.length; k++)
          expect(ends[k]!.x1).toBeGreaterThanOrEqual(ends[k - 1]!.x2 - 1e-6);
      }
    }
  });

  it('every shift is shaded where it happens', () => {
    const shaded = new Set(
      systems.flatMap((system) =>
        systemLanes(page, score, plan, system).shifts.map((lane) => lane.shift.toUid),
      ),
    );
    expect(plan.shifts.every((shift) => shaded.has(shift.toUid))).toBe(true);
  });
});
