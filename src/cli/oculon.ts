/** The command line. */
import { LEFT_SCHOOL_IDS } from '../core/fingering/left/rules/schools';
import { RIGHT_SCHOOL_IDS } from '../core/fingering/right/rules/schools';
import { PLAYERS } from '../core/instrument/hands';
import { INCLUDABLE } from '../core/copy/paper';

const USAGE = `./oculon plan FILE… [--out DIR] [--school ID] [--right-school ID] [--profile FILE] [--takes N]
  FILE is .musicxml, .xml, .mxl, .mei or .abc. Writes DIR/NAME.result.json and DIR/NAME.fingered.musicxml.
  --out DIR          where to write (default: the current folder)
  --school ID        left-hand school: ${LEFT_SCHOOL_IDS.join(', ')}
  --right-school ID  right-hand school: ${RIGHT_SCHOOL_IDS.join(', ')}
  --profile FILE     JSON: "like" a ready-made hand (${PLAYERS.map(({ hand }) => hand.id).join(', ')}),
                     "scaleLengthMm", and fields of the profile that differ from it
  --takes N          so many alternatives
Ends with 0, or with 2 when a file or an option could not be used.

./oculon print FILE… [--density full|teaching|sparse] [--paper a4|letter] [--out DIR]
  Writes DIR/NAME.pdf: the fingered score as the student gets it.
  --density D        marks on every note, what a student needs (default), or the fewest
  --paper P, --landscape, --staff normal|large|largest
  --include A,B      ${INCLUDABLE.join(', ')} (default: legend)
  --count BARS       bars that are counted, “3, 5-8”; all where none is named
  --alike            proposed and printed marks look the same
  --school, --right-school, --profile: as above

./oculon drill KIND [--option value …] [--out DIR]
  A technique drill as DIR/KIND.fingered.musicxml and DIR/KIND.result.json; ./oculon drill --help lists the kinds.

./oculon check FILE… [--school ID] [--right-school ID] [--profile FILE]
  Judges the fingering written in the files: findings as JSON on standard output.
  Ends with 0, with 1 when something in it cannot be played, or with 2 when a file could not be used.

./oculon admin, backup, restore: accounts and data of the server; ./oculon admin --help`;

const [command, ...rest] = process.argv.slice(2);

/** What a command needs is loaded when it is called. */
const COMMANDS: Readonly<Record<string, () => Promise<number>>> = {
  plan: async () => (await import('./planCommand')).planCommand(rest),
  print: async () => (await import('./printCommand')).printCommand(rest),
  drill: async () => (await import('./drillCommand')).drillCommand(rest),
  check: async () => (await import('./checkCommand')).checkCommand(rest),
};

const run = command === undefined ? undefined : COMMANDS[command];
if (run) {
  void run().then((code) => (process.exitCode = code));
} else if (command === '--help') {
  console.log(USAGE);
} else {
  console.error(command === undefined ? USAGE : `There is no command “${command}”.\n${USAGE}`);
  process.exitCode = 2;
}
