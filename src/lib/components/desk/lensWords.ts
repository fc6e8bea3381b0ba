/** Hands and schools by name. */
import type { LeftSchoolId } from '$core/fingering/left/rules/schools';

const HANDS: Readonly<Record<string, string>> = {
  'adult-medium': 'Adult, medium',
  'adult-large': 'Adult, large',
  'adult-small': 'Adult, small',
  teen: 'Teenager',
  'child-three-quarters': 'Child, ¾ guitar',
  'child-half': 'Child, ½ guitar',
};

export const handName = (id: string): string => HANDS[id] ?? id;

export const SCHOOL_NAMES: Readonly<Record<LeftSchoolId, string>> = {
  balanced: 'Balanced',
  'low-and-open': 'Low and open',
  'singing-line': 'Singing line',
  'ring-over': 'Ring-over',
  'guide-first': 'Guide finger first',
  'few-barres': 'Few barres',
};
