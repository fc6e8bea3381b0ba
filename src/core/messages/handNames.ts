/** Ready-made hands by name. */
const HANDS: Readonly<Record<string, string>> = {
  'adult-medium': 'Adult, medium',
  'adult-large': 'Adult, large',
  'adult-small': 'Adult, small',
  teen: 'Teenager',
  'child-three-quarters': 'Child, ¾ guitar',
  'child-half': 'Child, ½ guitar',
};

export const handName = (id: string): string => HANDS[id] ?? id;
