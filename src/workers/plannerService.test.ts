/** The planner's questions as the desk asks them: each gets an answer, or null where something newer came first. */
import { PLAIN_MARKS } from '../core/marks/style';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { PlannerService } from './plannerService';
import type { DocumentInput } from './readInput';

const input: DocumentInput = {
  bytes: readFileSync(new URL('../../demo/slow-window.musicxml', import.meta.url)),
  partIndex: 0,
  uids: null,
  convertedFrom: null,
  registers: [],
};

describe('the planner as a service', () => {
  it('reads, plans, prices and writes a file', async () => {
    const service = new PlannerService();
    const [opened, planned] = await Promise.all([service.open(input), service.plan()]);
    if (!opened || 'error' in opened) throw new Error('the demo can be read');
    const { notes } = planned!.plan;
    expect(notes.length).toBeGreaterThan(10);
    const { uid } = notes[3]!;
    const bounds = await service.prices(uid);
    const exact = await service.exactPrices(uid);
    expect([bounds?.exact, exact?.exact]).toEqual([false, true]);
    expect(exact!.left[0]!.extraCost).toBe(0);
    expect((await service.scripts())!.script.length).toBeGreaterThan(5);
    const file = new TextDecoder().decode(
      (await service.exportAs('musicxml', PLAIN_MARKS, { damps: [], expressions: [], remarks: [] }))!,
    );
    expect(file).toContain('<fingering>');
  });

  it('skips plans that newer ones have overtaken, but no export', async () => {
    const service = new PlannerService();
    await service.open(input);
    const [first, file, second] = await Promise.all([
      service.plan(),
      service.exportAs('musicxml', PLAIN_MARKS, { damps: [], expressions: [], remarks: [] }),
      service.plan([]),
    ]);
    expect(first).toBeNull();
    expect(file).not.toBeNull();
    expect(second).not.toBeNull();
  });

  it('gives up exact prices when the ink changes, and goes on when something else is asked meanwhile', async () => {
    const service = new PlannerService();
    await service.open(input);
    const { plan } = (await service.plan())!;
    const { uid } = plan.notes[5]!;
    const [given, scripts] = await Promise.all([service.exactPrices(uid), service.scripts()]);
    expect([given?.uid, scripts === null]).toEqual([uid, false]);
    const [left] = await Promise.all([
      service.exactPrices(uid),
      service.plan([[uid, { finger: null, string: null, pluck: 'i' }]]),
    ]);
    expect(left).toBeNull();
  });

  it('says what is wrong with a document, and has nothing to say before one is open', async () => {
    const service = new PlannerService();
    expect(await service.plan()).toBeNull();
    expect(service.isResting).toBe(true);
    const refused = await service.open({ ...input, bytes: new TextEncoder().encode('<score-partwise/>') });
    expect(refused).toMatchObject({ error: { code: 'noSuchPart' } });
  });
});
