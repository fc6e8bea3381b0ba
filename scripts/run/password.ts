/** A password from whoever sits at the terminal, or from standard input. */
import { text } from 'node:stream/consumers';
import { createInterface } from 'node:readline/promises';
import { Writable } from 'node:stream';
import { StartProblem } from './shell';

/** NIST SP 800-63B asks for 8 at least and advises length over rules of what is in it. */
const LEAST_LETTERS = 12;

/** @throws StartProblem for one that is too short */
export async function passwordOrThrow(): Promise<string> {
  const password = process.stdin.isTTY ? await asked() : (await text(process.stdin)).replace(/\r?\n$/, '');
  if (password.length < LEAST_LETTERS)
    throw new StartProblem(`The password needs ${LEAST_LETTERS} characters or more; a sentence is good.`);
  return password;
}

/** Nothing of what is typed is shown. */
async function asked(): Promise<string> {
  const nowhere = new Writable({ write: (_chunk, _encoding, done) => done() });
  process.stdout.write('Password: ');
  const lines = createInterface({ input: process.stdin, output: nowhere, terminal: true });
  try {
    return await lines.question('');
  } finally {
    lines.close();
    process.stdout.write('\n');
  }
}
