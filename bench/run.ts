/** `npm run bench [planning|both|importing|application|copies|hand]`: prints a table and writes bench/results.json. */
import { copies } from './copies';
import { application } from './desk';
import { writeResults } from './figures';
import { alignments, imports } from './importing';
import { bothHands, etudes, prices, replans } from './planning';

const SECTIONS: Readonly<Record<string, () => void | Promise<void>>> = {
  planning: etudes,
  both: () => {
    bothHands();
    replans();
    prices();
  },
  importing: async () => {
    await imports();
    alignments();
  },
  application: () => application(),
  copies,
};

const wanted = process.argv.slice(2);
for (const [name, run] of Object.entries(SECTIONS)) {
  if (wanted.length === 0 || wanted.includes(name)) await run();
}
// A part of the application, for whoever works on it.
if (wanted.includes('hand')) await application(true);
writeResults();
