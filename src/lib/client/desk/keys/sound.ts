/** How notes are to sound: found by name, as there are more of them than keys. */
import { EXPRESSION_IDS, type ExpressionId, EXPRESSIONS } from '$core/marks/expressions';
import type { Desk } from '../desk.svelte';
import { express } from '../ranges';
import type { Shortcut } from './shortcut';

const EXPRESSION_NAMES: Readonly<Record<ExpressionId, string>> = {
  dynamic: 'loudness',
  articulation: 'articulation',
  gesture: 'vibrato or slide',
  colour: 'place to pluck',
  attack: 'word on the stroke',
};

export const SOUND: readonly Shortcut[] = [
  {
    keys: ['R'],
    shift: true,
    group: 'sound',
    shown: 'Shift r',
    does: 'a remark to the bar, in words',
    run: (desk) => (desk.remarking = true),
  },
  // Found by name: there are more of them than keys.
  ...EXPRESSION_IDS.flatMap((attribute) => [
    ...Object.entries(EXPRESSIONS[attribute].values).map(([value, { sign, words }]): Shortcut => ({
      keys: [],
      group: 'sound',
      shown: '',
      does: sign === words ? sign : `${words} (${sign})`,
      run: (desk) => express(desk, attribute, value),
    })),
    {
      keys: [],
      group: 'sound' as const,
      shown: '',
      does: `no ${EXPRESSION_NAMES[attribute]}`,
      run: (desk: Desk) => express(desk, attribute, null),
    },
  ]),
];
