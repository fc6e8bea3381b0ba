/** Keeps the planner of the opened piece. Questions that a newer one has made pointless are skipped. */
import { correctionsOf, inkOf } from '../core/fingering/edition/registers';
import { maybeFormula } from '../core/fingering/formulas/formulas';
import type { Ink } from '../core/fingering/problem/ink';
import type { Planner } from '../core/fingering/planner';
import { WARM_UPS, warmUp } from '../core/fingering/warmUp';
import { readMusicXmlText, type MusicXmlText } from '../core/formats/musicxml/bytes';
import { exportFingered } from '../core/formats/musicxml/exportFingered';
import { readScore, type ScoreDocument } from '../core/formats/musicxml/readScore';
import type { Corrections } from '../core/score/corrections';
import { type DocumentInput, registersOf } from './readInput';
import { plannerFor } from './preparePlan';
import { rolesOfScore } from './preparePage';
import type { PlannerAnswer, PlannerRequest } from './protocol';

interface Session {
  readonly generation: number;
  readonly source: MusicXmlText;
  readonly document: ScoreDocument;
  readonly corrections: Corrections;
  readonly planner: Planner;
  ink: Ink;
}

let session: Session | null = null;
const waiting: PlannerRequest[] = [];

self.onmessage = ({ data }: MessageEvent<PlannerRequest>) => {
  if (waiting.length === 0) setTimeout(work, 0);
  waiting.push(data);
};

/** While the page is still fetching the piece; whoever asks for something comes first. */
function warmUpWhileIdle(n: number) {
  if (session || waiting.length > 0 || n === WARM_UPS) return;
  warmUp(n);
  setTimeout(() => warmUpWhileIdle(n + 1), 0);
}
setTimeout(() => warmUpWhileIdle(0), 0);

const answer = (value: PlannerAnswer) => self.postMessage(value);

/** One request at a time; between two of them the worker listens for newer ones. */
function work() {
  const request = waiting.shift();
  if (request && !isOutdated(request)) handle(request);
  if (waiting.length > 0) setTimeout(work, 0);
}

const isOutdated = (request: PlannerRequest) =>
  request.kind !== 'export' &&
  waiting.some(
    (later) =>
      ((later.kind === 'open' || later.kind === 'close') && later.generation >= request.generation) ||
      (request.kind !== 'open' && request.kind !== 'close' && later.kind === request.kind),
  );

function handle(request: PlannerRequest) {
  if (request.kind === 'open') return open(request.generation, request.operation, request.input);
  if (session?.generation !== request.generation) return;
  switch (request.kind) {
    case 'close':
      session = null;
      break;
    case 'apply':
      session.ink = new Map(request.ink);
      plan(session, request.operation);
      break;
    case 'prices':
      prices(session, request);
      break;
    case 'script':
      answer({
        kind: 'script',
        ...tags(request),
        script: session.planner.script(session.ink),
        strokes: session.planner.strokeScript(session.ink),
      });
      break;
    case 'slurs':
      answer({ kind: 'slurs', ...tags(request), slurs: session.planner.slurs(session.ink) });
      break;
    case 'ways': {
      const { from, to } = request;
      answer({ kind: 'ways', ...tags(request), from, to, ways: session.planner.ways(session.ink, from, to) });
      break;
    }
    case 'formula':
      dealFormula(session, request);
      break;
    case 'export': {
      const { source, document, planner, ink, corrections } = session;
      const bytes = exportFingered(source, document, planner.plan(ink), request.as, corrections);
      answer({ kind: 'exported', generation: request.generation, bytes });
    }
  }
}

const tags = ({ generation, operation }: { readonly generation: number; readonly operation: number }) => ({
  generation,
  operation,
});

/** First what the prices are at least, at once; then, a choice at a time and as long as nobody asks, what they are. */
function prices({ planner, ink, generation }: Session, request: Extract<PlannerRequest, { kind: 'prices' }>) {
  const choices = planner.choices(ink, request.uid);
  if (!choices) return;
  answer({ kind: 'prices', ...tags(request), choices });
  const exactly = planner.exactChoices(ink, request.uid);
  const goOn = () => {
    if (waiting.length > 0 || session?.generation !== generation || session.ink !== ink) return;
    const { done, value } = exactly.next();
    if (!done) setTimeout(goOn, 0);
    else if (value) answer({ kind: 'prices', ...tags(request), choices: value });
  };
  setTimeout(goOn, 0);
}

function dealFormula(
  { planner, ink }: Session,
  { from, to, formula, ...request }: Extract<PlannerRequest, { kind: 'formula' }>,
) {
  const wanted = maybeFormula(formula);
  if (!wanted) return;
  const plucks = [...planner.withFormula(ink, from, to, wanted)].flatMap(([uid, { pluck }]) =>
    pluck !== null && ink.get(uid)?.pluck !== pluck ? [[uid, pluck] as const] : [],
  );
  answer({ kind: 'formula', ...tags(request), plucks });
}

function open(generation: number, operation: number, input: DocumentInput) {
  const registers = registersOf(input);
  const corrections = correctionsOf(registers);
  const source = readMusicXmlText(input.bytes);
  const document = source.ok ? readScore(source.value.text, { ...input, corrections }) : source;
  if (!source.ok || !document.ok) {
    const error = !source.ok ? source.error : !document.ok ? document.error : null;
    if (error) answer({ kind: 'refused', generation, operation, error });
    return;
  }
  const { score } = document.value;
  answer({ kind: 'opened', generation, operation, score, roles: rolesOfScore(score) });
  const planner = plannerFor(score, registers);
  session = {
    generation,
    source: source.value,
    document: document.value,
    corrections,
    planner,
    ink: inkOf(registers),
  };
  plan(session, operation);
  setTimeout(() => prepareWhileIdle(generation), 0);
}

function prepareWhileIdle(generation: number) {
  if (waiting.length === 0 && session?.generation === generation) session.planner.prepare();
}

function plan(current: Session, operation: number) {
  const started = performance.now();
  const result = current.planner.plan(current.ink);
  const planMs = performance.now() - started;
  answer({ kind: 'planned', generation: current.generation, operation, plan: result, planMs });
}
