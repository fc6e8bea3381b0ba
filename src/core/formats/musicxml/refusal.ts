/** Carries a refusal out of nested reading; caught where reading began and never seen outside this folder. */
import { fail, ok, type Result } from '../../result';
import type { ImportError } from '../importError';
import { type Limited, LIMITS } from '../limits';

export const tooMuch = (of: Limited): ImportError => ({ code: 'tooMuch', of, most: LIMITS[of] });

export class Refusal extends Error {
  constructor(readonly reason: ImportError) {
    super(reason.code);
  }
}

/** The result of `read`, or the reason for which it refused. */
export function orRefusal<T>(read: () => T): Result<T, ImportError> {
  try {
    return ok(read());
  } catch (error) {
    if (error instanceof Refusal) return fail(error.reason);
    throw error;
  }
}
