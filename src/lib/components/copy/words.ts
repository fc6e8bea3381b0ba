/** Names of what a copy can have. */
import type { Includable } from '$core/copy/paper';
import type { Density } from '$core/marks/style';

export const DENSITY_NAMES: Readonly<Record<Density, string>> = {
  full: 'Every note',
  teaching: 'Teaching',
  sparse: 'Fewest',
};

export const INCLUDE_NAMES: Readonly<Record<Includable, string>> = {
  remarks: 'Remarks',
  legend: 'What the signs mean',
  chords: 'Chord names over the bars',
  form: 'Letters of the form',
  counting: 'Counting under the notes',
  tablature: 'Tablature under the staff',
  hotSpots: 'Hard places, step by step',
  grips: 'Chords and grips of the piece',
};
