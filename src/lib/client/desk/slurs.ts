/** Proposed slurs by key: taken, refused, gone through one after the other. */
import type { Desk } from './desk.svelte';

/** Takes the slur that is proposed here; elsewhere goes to the next one. */
export function acceptSlur(desk: Desk): void {
  const here = desk.slurHere;
  if (here) desk.set(here.toUid, 'slur', true);
  else moveToSlur(desk);
}

export function refuseSlur(desk: Desk): void {
  const here = desk.slurHere;
  if (here) desk.set(here.toUid, 'slur', false);
}

function moveToSlur(desk: Desk): void {
  if (!desk.planning.slurs) {
    desk.planning.askSlurs();
    desk.notice = 'Looking for slurs that would cure something; press the key again.';
    return;
  }
  const at = desk.selection.note?.momentIndex ?? -1;
  const inOrder = [...desk.planning.slurs].sort((a, b) => a.momentIndex - b.momentIndex);
  const next = inOrder.find(({ momentIndex }) => momentIndex > at) ?? inOrder[0];
  if (next) desk.selection.select(next.toUid);
  else desk.notice = 'No slur would cure anything here.';
}
