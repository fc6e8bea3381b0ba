/**
 * `npm run plans keep|compare [file]`: plans of the demo, of all passages and of random pieces, to the last digit. What
 * rebuilds the planner without changing a price keeps every one of them.
 */
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { dirname, join, resolve } from 'node:path';
import { z } from 'zod';
import { familiesIn, maybeJudgementFolder, passagesOf } from '../../calibration/judgement/passages';
import { taskOf } from '../../calibration/passage';
import { PASSAGES } from '../../calibration/passages/all';
import { RIGHT_PASSAGES } from '../../calibration/right/passages';
import { rightTaskOf } from '../../calibration/right/task';
import { chordal, longHeld, tremolo, twoVoices } from '../../bench/music';
import { LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import { termTotals } from '../../src/core/fingering/left/explain/explain';
import { Planner } from '../../src/core/fingering/planner';
import { RightPlanner } from '../../src/core/fingering/right/lattice/planRight';
import { DEFAULT_PLAYER } from '../../src/core/instrument/hands';
import { barXml, randomNotes, scoreOrThrow } from '../helpers/music';

interface PlannedPiece {
  readonly name: string;
  readonly cost: number;
  /** Each note as string, fret, finger and letter: what a reader sees of a difference. */
  readonly notes: string;
  /** Of everything else: reasons, shifts, rings, prices of some notes. */
  readonly digest: string;
}

const pieceSchema = z.object({ name: z.string(), cost: z.number(), notes: z.string(), digest: z.string() });

const digestOf = (value: unknown) =>
  createHash('sha256')
    .update(JSON.stringify(value, (_key, one: unknown) => (one instanceof Map ? [...one].sort() : one)))
    .digest('hex')
    .slice(0, 16);

/** Every so many-th note is asked for its prices. */
const ASKED = 7;

function plannedBy(name: string, planner: Planner): PlannedPiece {
  const plan = planner.plan(new Map());
  const asked = plan.notes.filter((_note, k) => k % ASKED === 3).slice(0, 4);
  const choices = asked.map(({ uid }) => planner.choices(new Map(), uid, 2));
  return {
    name,
    cost: plan.cost,
    notes: plan.notes
      .map(({ string, fret, finger, pluck }) => `${string}/${fret}-${finger}${pluck ?? ''}`)
      .join(' '),
    digest: digestOf([plan, choices]),
  };
}

function* demo(): Generator<PlannedPiece> {
  for (const file of readdirSync('demo').sort()) {
    const xml = readFileSync(join('demo', file), 'utf8');
    const planner = new Planner(scoreOrThrow(xml), DEFAULT_PLAYER.fretboard, DEFAULT_PLAYER.hand);
    yield plannedBy(file, planner);
  }
}

function* judged(): Generator<PlannedPiece> {
  const folder = maybeJudgementFolder();
  if (!folder) return;
  for (const family of familiesIn(folder))
    for (const { id, planner } of passagesOf(folder, family)) yield plannedBy(id, planner);
}

const grouped = <T>(groups: Readonly<Record<string, readonly T[]>>) =>
  Object.entries(groups).flatMap(([group, passages]) => passages.map((one) => [group, one] as const));

function* ownPassages(): Generator<PlannedPiece> {
  for (const [group, passage] of grouped(PASSAGES)) {
    const { problem } = taskOf(passage);
    const plan = new LeftPlanner(problem).plan(new Map());
    const notes = plan.placements.map((place) =>
      place ? `${place.string}/${place.fret}-${place.finger}` : 'x',
    );
    const digest = digestOf(termTotals(problem, plan.states));
    yield { name: `left ${group} ${passage.id}`, cost: plan.cost, notes: notes.join(' '), digest };
  }
  for (const [group, passage] of grouped(RIGHT_PASSAGES)) {
    const { problem, setting, placed } = rightTaskOf(passage);
    const { cost, played } = new RightPlanner(problem, setting).plan(placed, new Map());
    const notes = played.map(({ letters }) => letters.join('')).join(' ');
    yield { name: `right ${group} ${passage.id}`, cost, notes, digest: digestOf(played) };
  }
}

const MADE = { twoVoices, longHeld, chordal, tremolo } as const;
const RANDOM_PIECES = 60;

function* made(): Generator<PlannedPiece> {
  const planned = (name: string, xml: string) =>
    plannedBy(name, new Planner(scoreOrThrow(xml), DEFAULT_PLAYER.fretboard, DEFAULT_PLAYER.hand));
  for (const [name, make] of Object.entries(MADE))
    for (const seed of [1, 2]) yield planned(`${name} ${seed}`, make(12, seed));
  for (let seed = 1; seed <= RANDOM_PIECES; seed++)
    yield planned(`random ${seed}`, barXml(randomNotes(seed, 6 + (seed % 9)), 50 + (seed % 8) * 20));
}

const [what, file = 'out/plans/kept.json'] = process.argv.slice(2);
const path = resolve(file);
const sources = [demo, judged, ownPassages, made];
if (process.env.REVERSED) sources.reverse();
const pieces = sources.flatMap((source) => [...source()]);
if (what === 'keep') {
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(path, `${JSON.stringify(pieces, null, 1)}\n`);
  console.log(`${pieces.length} plans kept`);
} else {
  const kept = new Map(
    z
      .array(pieceSchema)
      .parse(JSON.parse(readFileSync(path, 'utf8')))
      .map((one) => [one.name, one]),
  );
  const changed = pieces.filter((piece) => {
    const before = kept.get(piece.name);
    if (before && before.digest === piece.digest && before.cost === piece.cost) return false;
    const sameNotes = before?.notes === piece.notes ? ', same notes' : '';
    console.log(`${piece.name}: ${before?.cost ?? 'new'} → ${piece.cost}${sameNotes}`);
    if (before && !sameNotes) console.log(`  ${before.notes}\n  ${piece.notes}`);
    return true;
  });
  console.log(`${pieces.length - changed.length} passed, ${changed.length} failed`);
  process.exitCode = changed.length === 0 ? 0 : 1;
}
