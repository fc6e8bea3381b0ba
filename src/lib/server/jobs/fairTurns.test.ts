import { describe, expect, it } from 'vitest';
import { FairTurns } from './fairTurns';

const soon = () => new Promise((resolve) => setTimeout(resolve, 1));

describe('turns', () => {
  it('go round among those who wait, and one thing is done at a time', async () => {
    const turns = new FairTurns();
    const done: string[] = [];
    let running = 0;
    const work = (name: string) => async () => {
      expect(++running).toBe(1);
      await soon();
      running--;
      done.push(name);
    };
    const many = ['a1', 'a2', 'a3', 'a4'].map((name) => turns.take('a', work(name)));
    await Promise.all([...many, turns.take('b', work('b1')), turns.take('b', work('b2'))]);
    expect(done).toEqual(['a1', 'a2', 'b1', 'a3', 'b2', 'a4']);
  });

  it('go on after a failure, which only its own taker hears of', async () => {
    const turns = new FairTurns();
    const failing = turns.take('a', () => Promise.reject(new Error('broken')));
    const other = turns.take('a', () => Promise.resolve(7));
    await expect(failing).rejects.toThrow('broken');
    expect(await other).toBe(7);
  });

  it('that are closed tell whoever still waits', async () => {
    const turns = new FairTurns();
    const first = turns.take('a', soon);
    const second = expect(turns.take('a', soon)).rejects.toThrow('closing');
    turns.close(new Error('closing'));
    await first;
    await second;
  });
});
