/** Drills in a row, each with its minutes and a ladder of tempos. Source: handbook 9: metronome from 60, 10 to 60 minutes a day. */
import { z } from 'zod';

export const routineItemSchema = z
  .strictObject({
    /** What makes the drill again: its kind, what was chosen, the piece and bars it is cut from. */
    query: z.record(z.string().max(40), z.string().max(200)),
    title: z.string().trim().min(1).max(200),
    /** One for each pass. */
    focuses: z.array(z.string().max(200)).max(6),
    minutes: z.int().min(1).max(60),
    from: z.int().min(20).max(300),
    to: z.int().min(20).max(300),
  })
  .refine(({ from, to }) => from <= to, 'the ladder must not go down');

export type RoutineItem = z.infer<typeof routineItemSchema>;

/** As many as one page holds. */
export const MOST_ITEMS = 12;

export const routineSchema = z.strictObject({
  title: z.string().trim().min(1).max(80),
  items: z.array(routineItemSchema).max(MOST_ITEMS),
});

export type Routine = z.infer<typeof routineSchema>;

export const minutesOf = ({ items }: Pick<Routine, 'items'>): number =>
  items.reduce((sum, { minutes }) => sum + minutes, 0);

const MOST_STEPS = 7;
/** Steps of a metronome. Source: common practice. */
const MARKS = [
  40, 42, 44, 46, 48, 50, 52, 54, 56, 58, 60, 63, 66, 69, 72, 76, 80, 84, 88, 92, 96, 100, 104, 108, 112, 116,
  120, 126, 132, 138, 144, 152, 160, 168, 176, 184, 192, 200, 208,
] as const;

/** From the slowest to the fastest by marks of a metronome, at most seven of them. */
export function ladderBetween(from: number, to: number): readonly number[] {
  const between = MARKS.filter((mark) => mark > from && mark < to);
  const inner = Math.min(MOST_STEPS - 2, between.length);
  const picked = Array.from(
    { length: inner },
    (_, k) => between[Math.floor(((k + 0.5) * between.length) / inner)]!,
  );
  return from === to ? [from] : [from, ...picked, to];
}
