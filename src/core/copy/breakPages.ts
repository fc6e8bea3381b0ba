/**
 * Where pages end, by dynamic programming over the systems: full pages, no system alone on the first or the last, and
 * where the leaf is turned a rest in which a hand can do it, if there is one.
 */

export interface Block {
  /** With everything that stands over and under its staff. */
  readonly height: number;
  /** The music rests long enough at its end, or the next one begins with a rest. */
  readonly restsAtEnd: boolean;
}

export interface PageRoom {
  /** Of the first page, under the title, and of every other one. */
  readonly first: number;
  readonly other: number;
  /** Between two systems at least. */
  readonly gap: number;
}

const COSTS = { page: 50, empty: 100, alone: 400, turnWithoutRest: 60 } as const;

/** @returns the index of the first block of each page */
export function breakPages(blocks: readonly Block[], room: PageRoom): readonly number[] {
  if (blocks.length === 0) return [0];
  /** By number of pages so far and number of blocks on them: a turn depends on the page's number. */
  type Way = { readonly cost: number; readonly firsts: readonly number[] };
  let open = new Map<number, Way>([[0, { cost: 0, firsts: [] }]]);
  let done: Way | null = null;
  for (let page = 0; page < blocks.length && open.size > 0; page++) {
    const next = new Map<number, Way>();
    for (const [from, way] of open) {
      for (let end = from + 1; end <= blocks.length; end++) {
        const cost = costOf(blocks, from, end, page, room);
        if (cost === null) break;
        const longer = { cost: way.cost + cost, firsts: [...way.firsts, from] };
        if (end === blocks.length) {
          if (!done || longer.cost < done.cost) done = longer;
        } else if (longer.cost < (next.get(end)?.cost ?? Infinity)) next.set(end, longer);
      }
    }
    open = next;
  }
  return done!.firsts;
}

/** Null where the blocks do not fit. A single one is always put on a page. */
function costOf(
  blocks: readonly Block[],
  from: number,
  end: number,
  page: number,
  room: PageRoom,
): number | null {
  const most = page === 0 ? room.first : room.other;
  const own = blocks.slice(from, end);
  const height = own.reduce((sum, block) => sum + block.height, 0) + (own.length - 1) * room.gap;
  if (height > most && own.length > 1) return null;
  const isLast = end === blocks.length;
  const isAlone = own.length === 1 && blocks.length > 1;
  const empty = isLast ? 0 : COSTS.empty * Math.max(0, 1 - height / most) ** 2;
  return (
    COSTS.page +
    empty +
    (isAlone && (page === 0 || isLast) ? COSTS.alone : 0) +
    (!isLast && isTurn(page) && !own.at(-1)!.restsAtEnd ? COSTS.turnWithoutRest : 0)
  );
}

/** The first page lies on the right: after it, and after every second one, the leaf is turned. */
const isTurn = (page: number) => page % 2 === 0;
