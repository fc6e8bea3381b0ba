/** In which order pieces stand on the shelf, and which of them are looked for. */
import type { Piece } from '$lib/server/repositories/pieces';
import { keyName } from './describe';

type Sortable = Pick<Piece, 'title' | 'composer' | 'summary' | 'plan' | 'createdAt'>;

const effort = ({ plan, summary }: Sortable): number =>
  plan && summary ? (plan.leftCost + plan.rightCost) / Math.max(1, summary.bars) : Infinity;
const byText = (a: string | null, b: string | null): number =>
  (a ?? '\uffff').localeCompare(b ?? '\uffff', 'en', { sensitivity: 'base', numeric: true });

/** Rows: each compares two pieces; equal ones stand by title. */
export const ORDERS = {
  newest: { name: 'newest first', compare: (a, b) => b.createdAt.localeCompare(a.createdAt) },
  title: { name: 'by title', compare: () => 0 },
  composer: { name: 'by composer', compare: (a, b) => byText(a.composer, b.composer) },
  easiest: { name: 'easiest first', compare: (a, b) => effort(a) - effort(b) || 0 },
  hardest: { name: 'hardest first', compare: (a, b) => effort(b) - effort(a) || 0 },
  shortest: { name: 'shortest first', compare: (a, b) => (a.summary?.bars ?? 0) - (b.summary?.bars ?? 0) },
} as const satisfies Readonly<
  Record<string, { readonly name: string; readonly compare: (a: Sortable, b: Sortable) => number }>
>;
export type Order = keyof typeof ORDERS;

export const sorted = <P extends Sortable>(pieces: readonly P[], order: Order): readonly P[] => {
  const { compare } = ORDERS[order];
  return [...pieces].sort((a, b) => compare(a, b) || byText(a.title, b.title));
};

/** Every word has to be in title, composer, key or a tag. */
export function isFound(
  { title, composer, summary, tags }: Pick<Piece, 'title' | 'composer' | 'summary' | 'tags'>,
  query: string,
): boolean {
  const key = summary ? keyName(summary) : '';
  const text = [title, composer ?? '', key, ...tags].join(' ').toLowerCase();
  return query
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

/** From the ink that there is, so that it is true again after a step back. */
export function stateWords({
  inkedNotes,
  gestures,
  summary,
}: Pick<Piece, 'inkedNotes' | 'gestures' | 'summary'>): string {
  const inked = inkedNotes ?? (gestures > 0 ? 1 : 0);
  if (inked === 0) return 'in pencil';
  return summary && inked >= summary.notes ? 'inked' : 'part inked';
}
