/** A worker thread of the server: answers one task after another. Built apart, as it is a program of its own. */
import { HANDLERS, type TaskName } from './tasks';

interface Question {
  readonly name: TaskName;
  readonly ask: never;
}

export default ({ name, ask }: Question): Promise<unknown> => HANDLERS[name](ask);
