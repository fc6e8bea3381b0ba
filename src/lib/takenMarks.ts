/** What came of taking over another edition's marks. */
import { z } from 'zod';

export const takenSchema = z.object({ taken: z.int(), lost: z.int() });
