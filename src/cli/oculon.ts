/** The command line. */
import { checkCommand } from './checkCommand';
import { planCommand } from './planCommand';

const USAGE = `./oculon plan FILE… [--out DIR] [--school ID] [--right-school ID] [--profile FILE] [--takes N]
  FILE is .musicxml, .xml, .mxl, .mei or .abc. Writes DIR/NAME.result.json and DIR/NAME.fingered.musicxml.
  --out DIR          where to write (default: the current folder)
  --school ID        left-hand school: balanced
  --right-school ID  right-hand school: balanced
  --profile FILE     JSON with fields of the hand profile that differ from the adult one
  --takes N          so many alternatives
Ends with 0, or with 2 when a file or an option could not be used.

./oculon check FILE…
  Judges the fingering written in the files: findings as JSON on standard output.
  Ends with 0, with 1 when something in it cannot be played, or with 2 when a file could not be used.`;

const [command, ...rest] = process.argv.slice(2);

if (command === 'plan') {
  void planCommand(rest).then((code) => (process.exitCode = code));
} else if (command === 'check') {
  void checkCommand(rest).then((code) => (process.exitCode = code));
} else {
  console.error(
    command === undefined || command === '--help' ? USAGE : `There is no command “${command}”.\n${USAGE}`,
  );
  process.exitCode = command === '--help' ? 0 : 2;
}
