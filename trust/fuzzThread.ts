/** Reads one spoilt file after another, and says before each which it is: what hangs or ends it is known by that. */
import { parentPort, workerData } from 'node:worker_threads';
import { summaryOf } from '../src/lib/pieceSummary';
import { importScore } from '../src/foreign/importScore';
import { randomFrom } from '../tests/helpers/music';
import { spoilt } from '../tests/helpers/spoilt';

export interface FuzzTask {
  readonly name: string;
  readonly seed: string;
  readonly from: number;
  readonly to: number;
}

const { name, seed, from, to } = workerData as FuzzTask;

/** A spoilt MEI file costs the reader its engraver: its program is compiled once a thread here, not once a file. */
let compiled: Promise<WebAssembly.Module> | null = null;
WebAssembly.instantiate = (async (bytes: BufferSource, imports: WebAssembly.Imports) => {
  const module = await (compiled ??= WebAssembly.compile(bytes));
  return { module, instance: new WebAssembly.Instance(module, imports) };
}) as typeof WebAssembly.instantiate;

/** @returns "read", the code of the refusal, or what was thrown */
async function outcomeOf(text: string): Promise<{ readonly outcome: string; readonly thrown: boolean }> {
  try {
    const result = await importScore(new TextEncoder().encode(text), name, null);
    if (result.ok) summaryOf(result.value.read);
    return { outcome: result.ok ? 'read' : result.error.code, thrown: false };
  } catch (error) {
    return { outcome: error instanceof Error ? (error.stack ?? error.message) : String(error), thrown: true };
  }
}

for (let k = from; k < to; k++) {
  parentPort!.postMessage({ begins: k });
  parentPort!.postMessage(await outcomeOf(spoilt(seed, randomFrom(k + 1))));
}
parentPort!.postMessage({ isOver: true });
