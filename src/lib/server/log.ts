/** The server's log: one line of JSON an event. */
import pino from 'pino';

interface Thrown {
  readonly name?: string;
  readonly message?: string;
  readonly code?: string;
  readonly stack?: string;
  readonly cause?: unknown;
}

/**
 * What is worth knowing of an error. Errors of the database carry their connection, and with it its secret key and
 * password: nothing but these fields is written.
 */
export function plainError(error: unknown): object {
  if (typeof error !== 'object' || error === null) return { message: String(error) };
  const { name, message, code, stack, cause } = error as Thrown;
  return { name, message, code, stack, ...(cause === undefined ? {} : { cause: plainError(cause) }) };
}

export const log = pino({ name: 'oculon', serializers: { err: plainError } });
