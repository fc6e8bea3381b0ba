/** What is done to a marked passage at once: each is one gesture, and one step back. */
import type { Operation } from '$core/fingering/edition/operation';
import { INK_ATTRIBUTES } from '$core/fingering/edition/attributes';
import { twinsOfBars } from '$core/fingering/edition/alike';
import { barsOf, wholeRange, type Range } from '$core/score/range';
import type { ExpressionId } from '$core/marks/expressions';
import type { Desk } from './desk.svelte';
import type { PassageWish } from '$workers/plannerService';

/** Inks what is marked as it stands; the note alone, where nothing is. */
export function inkRange(desk: Desk): void {
  const { ranged } = desk.selection;
  if (ranged.length === 0) desk.inkSelection();
  else
    said(
      desk,
      'inked',
      inkOfNotes(
        desk,
        ranged.map(({ uid }) => uid),
      ),
    );
}

/** Inks the whole piece as it is proposed. */
export function inkAll(desk: Desk): void {
  const { score } = desk.planning;
  if (score)
    said(
      desk,
      'inked',
      inkOfNotes(
        desk,
        score.notes.map(({ uid }) => uid),
      ),
    );
}

/** Gives what is marked back to pencil. */
export function pencilRange(desk: Desk): void {
  const { ranged } = desk.selection;
  if (ranged.length === 0) desk.pencilSelection();
  else
    said(
      desk,
      'given back to pencil',
      clearing(
        desk,
        ranged.map(({ uid }) => uid),
      ),
    );
}

/** Copies the fingering of what is marked, or else of the bar, to all other bars that hold the same music. */
export function copyToTwins(desk: Desk): void {
  const { planning, session, selection } = desk;
  const { score, plan } = planning;
  const range = selection.range ?? barRange(desk);
  if (!score || !plan || !range) return;
  const { first, last } = barsOf(score, range);
  const twins = twinsOfBars(score, first, last);
  if (twins.length === 0) {
    desk.notice = 'No other bar holds exactly this music; nothing was changed.';
    return;
  }
  const planned = new Map(plan.notes.map((note) => [note.uid, note]));
  const changes = twins.flatMap(({ from, to }): (Operation | null)[] => {
    const note = planned.get(from);
    if (!note || note.string === null) return [];
    return [
      session.change(to, 'finger', note.finger),
      session.change(to, 'string', note.string),
      session.change(to, 'pluck', note.pluck),
    ];
  });
  const bars = new Set(twins.map(({ to }) => score.notes.find(({ uid }) => uid === to)!.measureIndex));
  session.decide(changes);
  desk.notice = `Copied to ${bars.size} ${bars.size === 1 ? 'bar' : 'bars'} of the same music: ${[...bars].map((bar) => score.measures[bar]!.number).join(', ')}.`;
}

/**
 * Says how what is marked is to sound, or else the note. Loudness and colour hold from a note on: they stand at the first.
 * @param value null takes it back
 */
export function express(desk: Desk, attribute: ExpressionId, value: string | null): void {
  const { session, selection } = desk;
  const uids = selection.ranged.map(({ uid }) => uid);
  const all = uids.length > 0 ? uids : selection.uid ? [selection.uid] : [];
  const holds = attribute === 'dynamic' || attribute === 'colour';
  const targets = value !== null && holds ? all.slice(0, 1) : all;
  session.decide(targets.map((uid) => session.change(uid, attribute, value)));
}

/** Plans what is marked anew, under another school or in a position, and inks it so. */
export async function planAnew(desk: Desk, wish: PassageWish): Promise<void> {
  const { planning, session, selection } = desk;
  const uids = selection.ranged.map(({ uid }) => uid);
  const range = selection.range;
  if (!planning.score || !range || uids.length === 0) return;
  const { first, last } = barsOf(planning.score, range);
  const places = await planning.passage(first, last, uids, wish);
  if (!places) return;
  session.decide(
    places.flatMap(([uid, { finger, string, pluck }]) => [
      session.change(uid, 'finger', finger),
      session.change(uid, 'string', string),
      session.change(uid, 'pluck', pluck),
    ]),
  );
  desk.notice = `${places.length} notes planned anew and inked. Ctrl z takes it back.`;
}

function inkOfNotes(desk: Desk, uids: readonly string[]): readonly (Operation | null)[] {
  const { session, planning } = desk;
  const wanted = new Set(uids);
  return (planning.plan?.notes ?? [])
    .filter(({ uid, string }) => wanted.has(uid) && string !== null)
    .flatMap((note) => [
      session.change(note.uid, 'finger', note.finger),
      session.change(note.uid, 'string', note.string),
      session.change(note.uid, 'pluck', note.pluck ?? session.inkOf(note.uid).pluck),
    ]);
}

const clearing = ({ session }: Desk, uids: readonly string[]): readonly (Operation | null)[] =>
  uids.flatMap((uid) => INK_ATTRIBUTES.map((attribute) => session.change(uid, attribute, null)));

function said(desk: Desk, what: string, changes: readonly (Operation | null)[]): void {
  const notes = new Set(changes.flatMap((change) => (change ? [change.target] : []))).size;
  desk.session.decide(changes);
  desk.notice =
    notes === 0
      ? `Everything there was ${what} already.`
      : `${notes} ${notes === 1 ? 'note' : 'notes'} ${what}.`;
}

function barRange({ planning, selection }: Desk): Range | null {
  const { score } = planning;
  const note = score?.notes.find(({ uid }) => uid === selection.uid);
  if (!score || !note) return null;
  const { startTicks, durationTicks } = score.measures[note.measureIndex]!;
  return { ...wholeRange(score), from: startTicks, to: startTicks + durationTicks - 1 };
}
