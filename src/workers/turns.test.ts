import { describe, expect, it } from 'vitest';
import { Turns } from './turns';

const turns = () => new Turns(new Set(['open']));

describe('turns', () => {
  it('answer in order, and skip what a newer question of the kind has made pointless', async () => {
    const queue = turns();
    const answers = await Promise.all([
      queue.take('prices', () => 1),
      queue.take('script', () => 2),
      queue.take('prices', () => 3),
    ]);
    expect(answers).toEqual([null, 2, 3]);
  });
  it('skip everything before a job that changes everything, but not what must be answered', async () => {
    const queue = turns();
    const answers = await Promise.all([
      queue.take('prices', () => 1),
      queue.take('export', () => 2, false),
      queue.take('open', () => 3),
    ]);
    expect(answers).toEqual([null, 2, 3]);
    expect(queue.isIdle).toBe(true);
  });
  it('reject with what the work throws, and go on', async () => {
    const queue = turns();
    const failed = queue.take('script', () => {
      throw new Error('no such note');
    });
    const after = queue.take('slurs', () => 4);
    await expect(failed).rejects.toThrow('no such note');
    expect(await after).toBe(4);
  });
});
