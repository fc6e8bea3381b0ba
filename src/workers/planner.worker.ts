/** Keeps the planner of the opened piece. Questions that a newer one has made pointless are skipped. */
import type { Ink } from '../core/fingering/ink';
import { Planner } from '../core/fingering/planner';
import { readMusicXmlText, type MusicXmlText } from '../core/formats/musicxml/bytes';
import { exportFingered } from '../core/formats/musicxml/exportFingered';
import { readScore, type ScoreDocument } from '../core/formats/musicxml/readScore';
import { CONCERT_FRETBOARD } from '../core/instrument/fretboard';
import { ADULT_MEDIUM } from '../core/instrument/handProfile';
import type { InkEntries, PlannerAnswer, PlannerRequest } from './protocol';

interface Session {
  readonly generation: number;
  readonly source: MusicXmlText;
  readonly document: ScoreDocument;
  readonly planner: Planner;
  ink: Ink;
}

let session: Session | null = null;
const waiting: PlannerRequest[] = [];

self.onmessage = ({ data }: MessageEvent<PlannerRequest>) => {
  if (waiting.length === 0) setTimeout(work, 0);
  waiting.push(data);
};

const answer = (value: PlannerAnswer) => self.postMessage(value);

/** One request at a time; between two of them the worker listens for newer ones. */
function work() {
  const request = waiting.shift();
  if (request && !isOutdated(request)) handle(request);
  if (waiting.length > 0) setTimeout(work, 0);
}

const isOutdated = (request: PlannerRequest) =>
  waiting.some(
    (later) =>
      later.kind === 'open' ||
      later.kind === 'close' ||
      ((request.kind === 'apply' || request.kind === 'prices') && later.kind === request.kind),
  );

function handle(request: PlannerRequest) {
  if (request.kind === 'open') return open(request.generation, request.source, request.ink);
  if (session?.generation !== request.generation) return;
  switch (request.kind) {
    case 'close':
      session = null;
      break;
    case 'apply':
      session.ink = new Map(request.ink);
      plan(session, request.operation);
      break;
    case 'prices': {
      const choices = session.planner.choices(session.ink, request.uid);
      if (choices)
        answer({ kind: 'prices', generation: request.generation, operation: request.operation, choices });
      break;
    }
    case 'export': {
      const bytes = exportFingered(
        session.source,
        session.document,
        session.planner.plan(session.ink),
        request.as,
      );
      answer({ kind: 'exported', generation: request.generation, bytes });
    }
  }
}

function open(generation: number, bytes: Uint8Array, ink: InkEntries) {
  const source = readMusicXmlText(bytes);
  const document = source.ok ? readScore(source.value.text) : source;
  if (!source.ok || !document.ok) {
    const error = !source.ok ? source.error : !document.ok ? document.error : null;
    if (error) answer({ kind: 'refused', generation, error });
    return;
  }
  const { score } = document.value;
  const planner = new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
  const roles = planner.problem.strikes.flatMap((strike) =>
    strike.uids.map((uid) => [uid, strike.role] as const),
  );
  session = { generation, source: source.value, document: document.value, planner, ink: new Map(ink) };
  answer({ kind: 'opened', generation, score, roles });
  plan(session, 0);
}

function plan(current: Session, operation: number) {
  const started = performance.now();
  const result = current.planner.plan(current.ink);
  const planMs = performance.now() - started;
  answer({ kind: 'planned', generation: current.generation, operation, plan: result, planMs });
}
