/** `npm run trust [kills|fuzz|load|score]`: tries what could lose work or lock people out; writes docs/trust.md. */
import { fuzz } from './fuzz';
import { kills } from './kills';
import { load } from './load';
import { score } from './score';
import { writeReport } from './report';

const PROBES: Readonly<Record<string, () => Promise<void>>> = { kills, load, score, fuzz };

const wanted = process.argv.slice(2);
for (const [name, run] of Object.entries(PROBES)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  console.log(`\n— ${name}`);
  await run();
  // After each: a long run that is broken off has not been in vain.
  writeReport();
}
process.exit(0);
