/** A process that plans one étude and nothing before it; prints the ms. */
import { type EtudeName, leftPlanMs } from './planning';

const [name, bars] = process.argv.slice(2);
console.log(leftPlanMs(name as EtudeName, Number(bars)));
