/** A process that plans one étude and nothing before it, or only what a worker plans as it starts; prints the ms. */
import { WARM_UPS, warmUp } from '../src/core/fingering/warmUp';
import { type EtudeName, leftPlanMs } from './planning';

const [name, bars, start] = process.argv.slice(2);
if (start === 'warmed') for (let n = 0; n < WARM_UPS; n++) warmUp(n);
console.log(leftPlanMs(name as EtudeName, Number(bars)));
