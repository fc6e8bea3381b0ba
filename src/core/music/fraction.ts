/** Lengths in quarters as reduced fractions, so that no float decides where a note ends. */

export interface Fraction {
  readonly num: number;
  readonly den: number;
}

export const gcd = (a: number, b: number): number => (b === 0 ? Math.abs(a) : gcd(b, a % b));

export const lcm = (a: number, b: number): number => (a / gcd(a, b)) * b;

/** @throws RangeError when `den` is not a positive whole number */
export function fraction(num: number, den: number): Fraction {
  if (!Number.isInteger(num) || !Number.isInteger(den) || den < 1)
    throw new RangeError(`not a fraction of whole numbers: ${num}/${den}`);
  const common = gcd(num, den) || 1;
  return { num: num / common, den: den / common };
}

export const fractionText = ({ num, den }: Fraction): string => (den === 1 ? String(num) : `${num}/${den}`);

/** "3/2" or "2"; null for anything else, and for denominators above 1024. */
export function maybeFraction(text: string): Fraction | null {
  const match = /^(\d{1,5})(?:\/(\d{1,4}))?$/.exec(text);
  if (!match) return null;
  const den = Number(match[2] ?? 1);
  return den < 1 || den > 1024 ? null : fraction(Number(match[1]), den);
}
