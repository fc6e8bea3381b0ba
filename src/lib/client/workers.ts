/** The desk's two workers, made once for the tab: the engraver's module is large and stays loaded. */
import EngraverWorker from '$workers/engraver.worker?worker';
import PlannerWorker from '$workers/planner.worker?worker';
import type { EngraverAnswer, EngraverRequest, PlannerAnswer, PlannerRequest } from '$workers/protocol';

let engraver: Worker | null = null;
let planner: Worker | null = null;
let lastGeneration = 0;

export interface WorkerBridge {
  readonly generation: number;
  readonly plan: (request: PlannerRequest) => void;
  readonly close: () => void;
}

/** Opens a piece in both workers; answers of other generations are dropped here. */
export function openInWorkers(
  source: Uint8Array,
  onPage: (answer: EngraverAnswer) => void,
  onAnswer: (answer: PlannerAnswer) => void,
): WorkerBridge {
  const generation = ++lastGeneration;
  const engraving = (engraver ??= new EngraverWorker());
  const planning = (planner ??= new PlannerWorker());
  const hearPage = ({ data }: MessageEvent<EngraverAnswer>) => data.generation === generation && onPage(data);
  const hearPlan = ({ data }: MessageEvent<PlannerAnswer>) =>
    data.generation === generation && onAnswer(data);
  engraving.addEventListener('message', hearPage);
  planning.addEventListener('message', hearPlan);
  engraving.postMessage({ generation, source } satisfies EngraverRequest);
  return {
    generation,
    plan: (request) => planning.postMessage(request),
    close: () => {
      planning.postMessage({ kind: 'close', generation } satisfies PlannerRequest);
      engraving.removeEventListener('message', hearPage);
      planning.removeEventListener('message', hearPlan);
    },
  };
}

/** Loads the engraver ahead of time, from the shelf. */
export function warmUp(): void {
  engraver ??= new EngraverWorker();
}
