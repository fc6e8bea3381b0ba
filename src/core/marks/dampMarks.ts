/** Signs where the teacher has a ringing string stopped, or all of them. Source: handbook 2; SMuFL `pluckedDamp`, `pluckedDampAll`. */
import type { Role } from '../fingering/problem/strike';
import type { Mark } from './mark';

/** The string of the note, or every string. */
export const DAMPS = ['string', 'all'] as const;
export type Damp = (typeof DAMPS)[number];

export const dampMarks = (
  damps: ReadonlyMap<string, Damp>,
  roles: ReadonlyMap<string, Role>,
): readonly Mark[] =>
  [...damps].map(([uid, text]): Mark => ({
    id: `damp:${uid}`,
    kind: 'damp',
    uid,
    toUid: uid,
    text,
    state: 'ink',
    below: roles.get(uid) === 'bass',
    causes: [{ code: 'decided' }],
    departs: null,
  }));
