/** The server's settings, from the environment that `./start` prepares. */
import { z } from 'zod';

const schema = z.object({
  OCULON_DATABASE_URL: z.string().min(1),
  OCULON_JOBS_URL: z.string().optional(),
  OCULON_DEMO: z.enum(['0', '1']).default('0'),
  OCULON_THREAD: z.string().optional(),
});

export interface Config {
  readonly databaseUrl: string;
  /** The role that keeps the background's jobs; null where nothing is made ready (scripts, seeds). */
  readonly jobsUrl: string | null;
  /** Shows the demo's credentials and signs the first visitor in. Never set it where others can reach the server. */
  readonly demo: boolean;
  /** The built worker thread; null where heavy work is done in place. */
  readonly threadPath: string | null;
}

let known: Config | null = null;

/** @throws ZodError when the environment is incomplete */
export function config(): Config {
  if (!known) {
    const env = schema.parse(process.env);
    known = {
      databaseUrl: env.OCULON_DATABASE_URL,
      jobsUrl: env.OCULON_JOBS_URL ?? null,
      demo: env.OCULON_DEMO === '1',
      threadPath: env.OCULON_THREAD ?? null,
    };
  }
  return known;
}
