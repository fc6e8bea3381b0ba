/** The desk's two workers, made once for the tab. The engraver's module is large: it is loaded when it is needed. */
import EngraverWorker from '$workers/engraver.worker?worker';
import PlannerWorker from '$workers/planner.worker?worker';
import type { EngraverAnswer, EngraverRequest, PlannerAnswer, PlannerRequest } from '$workers/protocol';

let engraver: Worker | null = null;
let planner: Worker | null = null;
let lastGeneration = 0;

/**
 * Starts the planner before a piece is opened: it plans some music of its own while nobody asks, so that the machine
 * has compiled it by then.
 */
export function startPlanner(): Worker {
  return (planner ??= new PlannerWorker());
}

export interface WorkerBridge {
  readonly generation: number;
  readonly plan: (request: PlannerRequest) => void;
  readonly engrave: (request: EngraverRequest) => void;
  readonly close: () => void;
}

/** Connects an opened piece to both workers; answers of other generations are dropped here. */
export function connectWorkers(
  onPage: (answer: EngraverAnswer) => void,
  onAnswer: (answer: PlannerAnswer) => void,
): WorkerBridge {
  const generation = ++lastGeneration;
  const planning = startPlanner();
  const hearPage = ({ data }: MessageEvent<EngraverAnswer>) => data.generation === generation && onPage(data);
  const hearPlan = ({ data }: MessageEvent<PlannerAnswer>) =>
    data.generation === generation && onAnswer(data);
  planning.addEventListener('message', hearPlan);
  let listening = false;
  return {
    generation,
    plan: (request) => planning.postMessage(request),
    engrave: (request) => {
      const engraving = (engraver ??= new EngraverWorker());
      if (!listening) engraving.addEventListener('message', hearPage);
      listening = true;
      engraving.postMessage(request);
    },
    close: () => {
      planning.postMessage({ kind: 'close', generation } satisfies PlannerRequest);
      planning.removeEventListener('message', hearPlan);
      engraver?.removeEventListener('message', hearPage);
    },
  };
}
