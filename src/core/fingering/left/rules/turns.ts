/** Fingers that hinder each other when one lifts as the other goes down. */
import { FINGER_PAIRS, type HandProfile } from '../../../instrument/handProfile';
import { hurryOf } from './cuts';
import type { WayRule } from './rule';

/** By the fingers that are down before and after, a bit for each. */
export const TURN_WEAKNESS: WayRule = {
  id: 'turns',
  from: { code: (hand) => hand.down, ms: (_hand, step) => step.ms },
  to: { code: (hand) => hand.down },
  charge: (from, to, ms, bill) =>
    bill.charge('weakPair', turnWeakness(bill.setting.hand, from & ~to, to & ~from) * hurryOf(ms)),
};

/** How much the fingers that go down are hindered by those that lift. */
function turnWeakness({ dependence }: HandProfile, lifted: number, placed: number): number {
  let sum = 0;
  for (const pair of FINGER_PAIRS) {
    const [low, high] = [1 << (Number(pair[0]) - 1), 1 << (Number(pair[1]) - 1)];
    const turns = (lifted & low && placed & high) || (lifted & high && placed & low);
    if (turns) sum += dependence[pair];
  }
  return sum;
}
