/** Schools by name. */
import type { LeftSchoolId } from '$core/fingering/left/rules/schools';

export const SCHOOL_NAMES: Readonly<Record<LeftSchoolId, string>> = {
  balanced: 'Balanced',
  'low-and-open': 'Low and open',
  'singing-line': 'Singing line',
  'ring-over': 'Ring-over',
  'guide-first': 'Guide finger first',
  'few-barres': 'Few barres',
};
