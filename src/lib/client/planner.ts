/**
 * The planner and the engraver, each in a worker made once for the tab. The engraver's module is large: it is loaded
 * when it is needed.
 */
import { type Remote, wrap } from 'comlink';
import EngraverWorker from '$workers/engraver.worker?worker';
import PlannerWorker from '$workers/planner.worker?worker';
import type { EngraverService } from '$workers/engraver.worker';
import type { PlannerService } from '$workers/plannerService';

let planner: Remote<PlannerService> | null = null;
let engraver: Remote<EngraverService> | null = null;

/**
 * Starts the planner before a piece is opened: it plans some music of its own while nobody asks, so that the machine
 * has compiled it by then.
 */
export function startPlanner(): Remote<PlannerService> {
  return (planner ??= wrap<PlannerService>(new PlannerWorker()));
}

export const startEngraver = (): Remote<EngraverService> =>
  (engraver ??= wrap<EngraverService>(new EngraverWorker()));

/** Whose piece is open: one that was left must not close it for the next. */
let owner: object | null = null;

/** @param who whoever asks from now on */
export function takePlanner(who: object): Remote<PlannerService> {
  owner = who;
  return startPlanner();
}

export function leavePlanner(who: object): void {
  if (owner !== who) return;
  owner = null;
  void planner?.close();
}
