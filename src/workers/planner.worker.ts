/** Keeps the planner of the opened piece, and plans music of its own while nobody asks. */
import { expose } from 'comlink';
import { WARM_UPS, warmUp } from '../core/fingering/warmUp';
import { PlannerService } from './plannerService';

const service = new PlannerService();
expose(service);

/** While the page is still fetching the piece; whoever asks for something comes first. */
function warmUpWhileResting(n: number) {
  if (!service.isResting || n === WARM_UPS) return;
  warmUp(n);
  setTimeout(() => warmUpWhileResting(n + 1), 0);
}
setTimeout(() => warmUpWhileResting(0), 0);
