/** The drills of a passage, in the order of the bench. A new one is one file and a row here. */
import type { DrillKind } from '../drill';
import { blocksDrillOf } from './kinds/blocks';
import { changesOf } from './kinds/changes';
import { formulaOf } from './kinds/formula';
import { joinsOf } from './kinds/joins';
import { openStringsOf } from './kinds/openStrings';
import { rhythmsOf } from './kinds/rhythms';
import type { Passage } from './passage';

const MAKERS: readonly ((passage: Passage) => DrillKind)[] = [
  changesOf,
  joinsOf,
  rhythmsOf,
  blocksDrillOf,
  formulaOf,
  openStringsOf,
];

export const PIECE_KIND_IDS: readonly string[] = [
  'piece-changes',
  'piece-joins',
  'piece-rhythms',
  'piece-blocks',
  'piece-formula',
  'piece-open-strings',
];

/** None where the passage has no note that a hand can play. */
export const pieceKindsOf = (passage: Passage): readonly DrillKind[] =>
  passage.notes.length === 0 ? [] : MAKERS.map((make) => make(passage));
