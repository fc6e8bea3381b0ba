/** The command line. */
import { planCommand } from './planCommand';

const USAGE = `./oculon plan FILE… [--out DIR] [--school ID] [--right-school ID] [--profile FILE] [--takes N]
  FILE is .musicxml, .xml, .mxl, .mei or .abc. Writes DIR/NAME.result.json and DIR/NAME.fingered.musicxml.
  --out DIR          where to write (default: the current folder)
  --school ID        left-hand school: balanced
  --right-school ID  right-hand school: balanced
  --profile FILE     JSON with fields of the hand profile that differ from the adult one
  --takes N          so many alternatives
Ends with 0, or with 2 when a file or an option could not be used.`;

const [command, ...rest] = process.argv.slice(2);

if (command === 'plan') {
  void planCommand(rest).then((code) => (process.exitCode = code));
} else {
  console.error(
    command === undefined || command === '--help' ? USAGE : `There is no command “${command}”.\n${USAGE}`,
  );
  process.exitCode = command === '--help' ? 0 : 2;
}
