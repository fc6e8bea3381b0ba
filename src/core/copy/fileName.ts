/** A name that can be shared: what, how densely marked, and of which day. */
import type { Density } from '../marks/style';

const DENSITY_WORDS: Readonly<Record<Density, string>> = {
  full: 'every note',
  teaching: 'teaching marks',
  sparse: 'fewest marks',
};

/** "Late Ferry, teaching marks, 2026-11-29.pdf": nothing in it that a file system refuses. */
export function copyFileName(title: string, density: Density, date: Date, extension: string): string {
  const name =
    title
      .replace(/[\\/:*?"<>|\p{Cc}]+/gu, ' ')
      .replace(/\s+/g, ' ')
      .trim()
      .slice(0, 80) || 'piece';
  return `${name}, ${DENSITY_WORDS[density]}, ${date.toISOString().slice(0, 10)}.${extension}`;
}

/** At the foot of every page: of which day, and after which change of the edition. */
export const imprintOf = (date: Date, seq: number | null): string =>
  `${date.getUTCDate()} ${MONTHS[date.getUTCMonth()]!} ${date.getUTCFullYear()}${seq === null ? '' : `, change ${seq}`}`;

const MONTHS = 'January February March April May June July August September October November December'.split(
  ' ',
);
