/** What the right hand has to pluck, given the strings. */
import { isPick, type Pluck } from '../../../score/model';
import type { Texture } from '../../../figures/texture';
import type { NoteHand } from '../../../figures/thumb';
import type { Phase } from '../../../figures/tremoloGroups';
import type { FingeringProblem, Moment } from '../../problem/problem';
import type { Role } from '../../problem/strike';
import type { HandState } from '../../left/rules/handState';
import type { Placement } from '../../left/rules/place';
import { slurPlayable } from '../../left/rules/connections';
import { EFFECTS, type EffectId, LONGEST_TAIL_MS, type StrokeEffect } from './effects';
import type { Manner, RightSetting } from './setting';
import {
  AFTER_ROLL_SHARE,
  FIND_AGAIN_MS,
  LONG_GAP_MS,
  REPEAT_FREE_MS,
  steppedGapMs,
  steppedPaceMs,
} from './terms';

export interface Stroke {
  readonly strike: number;
  readonly string: number;
  readonly role: Role;
  /** Whose note it is. */
  readonly hand: NoteHand;
  /** Which of the repeated notes of a tremolo it is. */
  readonly phase: Phase | null;
  readonly printed: Pluck | null;
  /** The finger that a chosen order of a tremolo gives it. */
  readonly wanted: Pluck | null;
}

/** The strokes of one moment, from the lowest-pitched string (6) up. Slurred strikes are not plucked. */
export interface StrokeGroup {
  readonly strokes: readonly Stroke[];
  readonly manner: Manner;
  /** Whether it begins a beat. */
  readonly onBeat: boolean;
  /** Whether it begins a passage: there the starting finger counts. */
  readonly opens: boolean;
  readonly effect: EffectId | null;
  /** What the fingers have to think in. */
  readonly texture: Texture;
  /** Whether it is a slow tune, and the fingers have struck a chord a moment ago. */
  readonly overChord: boolean;
  /** Time since the moment before, in steps; long ones are all alike. */
  readonly gapMs: number;
  /** The shorter of the times before and after it. */
  readonly paceMs: number;
  /** Whether the next stroke comes so soon that a finger must not play twice. */
  readonly quickNext: boolean;
  /** After a strum or a roll: the share of the time there that finding the strings takes; 0 elsewhere. */
  readonly landing: number;
  /** Whether p may take two strings of a small chord: where it is marked or inked so. */
  readonly lifted: boolean;
  /** Nothing is remembered after it: so it bounds from below what this group, or every group, can cost. */
  readonly forgets: boolean;
  /** Equal for groups that are alike but for the numbers of their strikes. */
  readonly key: string;
}

/** Since the moment before. */
const gapMsAt = ({ moments }: FingeringProblem, k: number): number =>
  k === 0 || k === moments.length ? LONG_GAP_MS : moments[k]!.timeMs - moments[k - 1]!.timeMs;

export interface PlacedStrike {
  readonly strike: number;
  readonly place: Placement;
  /** Whether the left hand plays it, as the second note of a slur. */
  readonly slurred: boolean;
}

/** By moment: where its notes lie when the left hand takes these states. */
export const placedOn = (
  problem: FingeringProblem,
  states: readonly HandState[],
): readonly (readonly PlacedStrike[])[] =>
  problem.moments.map((moment, k) => placedAt(problem, moment, states[k - 1] ?? null, states[k]!));

export function placedAt(
  problem: FingeringProblem,
  { struck }: Moment,
  before: HandState | null,
  state: HandState,
): readonly PlacedStrike[] {
  return struck.flatMap((strike) => {
    const place = placeIn(state, strike);
    if (!place) return [];
    const source = problem.strikes[strike]!.slurredFrom;
    const from = before && source !== null ? placeIn(before, source) : null;
    return [{ strike, place, slurred: from !== null && slurPlayable(from, place) }];
  });
}

function placeIn(state: HandState, strike: number): Placement | null {
  const slot = state.strikes.indexOf(strike);
  return slot < 0 ? null : state.placements[slot]!;
}

export function strokeGroup(
  problem: FingeringProblem,
  setting: RightSetting,
  k: number,
  placed: readonly PlacedStrike[],
): StrokeGroup {
  const manner = setting.styles[k]!;
  const strokes = placed
    .filter(({ slurred }) => !slurred)
    .map(({ strike, place }): Stroke => {
      const { role, printed } = problem.strikes[strike]!;
      return {
        strike,
        string: place.string,
        role,
        hand: setting.reading.hands[strike]!,
        phase: setting.reading.phases[strike]!,
        // What a plectrum played says nothing to fingers, nor the other way round.
        printed: isPick(printed.pluck) === manner.school.plectrum ? printed.pluck : null,
        wanted: setting.tremolo[strike]!,
      };
    })
    .sort((a, b) => b.string - a.string);
  return keyed({
    strokes,
    manner,
    onBeat: setting.onBeat[k]!,
    opens: setting.opens[k]!,
    effect: setting.effects[k]!,
    texture: setting.reading.textures[k]!,
    overChord: setting.reading.textures[k] === 'slowMelody' && setting.reading.overChord[k]!,
    gapMs: steppedGapMs(gapMsAt(problem, k)),
    paceMs: steppedPaceMs(Math.min(gapMsAt(problem, k), gapMsAt(problem, k + 1))),
    quickNext: gapMsAt(problem, k + 1) < REPEAT_FREE_MS,
    landing: landingShare(problem, setting, k),
    lifted: isMarkedForThumb(strokes),
    forgets: false,
  });
}

/** What bounds every group of the moment from below. */
export const restGroup = (setting: RightSetting, k: number): StrokeGroup => ({
  strokes: [],
  manner: setting.styles[k]!,
  onBeat: setting.onBeat[k]!,
  opens: false,
  effect: null,
  texture: setting.reading.textures[k]!,
  overChord: false,
  gapMs: 0,
  paceMs: 0,
  quickNext: false,
  landing: 0,
  lifted: false,
  forgets: true,
  key: 'other strings',
});

/** The same group for a bound: what comes after it costs as if it came from nowhere. */
export const forgetting = (group: StrokeGroup): StrokeGroup => ({
  ...group,
  forgets: true,
  key: `${group.key}~`,
});

const isMarkedForThumb = (strokes: readonly Stroke[]) =>
  strokes.filter(({ printed, wanted }) => printed === 'p' || wanted === 'p').length > 1;

/** The same group without the filter on two strings for p. */
export const liftedGroup = (group: StrokeGroup): StrokeGroup =>
  group.lifted ? group : keyed({ ...group, lifted: true });

/** The same group with fewer strokes. */
export const withStrokes = (group: StrokeGroup, strokes: readonly Stroke[]): StrokeGroup =>
  keyed({ ...group, strokes });

function keyed(group: Omit<StrokeGroup, 'key'>): StrokeGroup {
  const { strokes, manner, onBeat, opens, effect, texture, overChord } = group;
  const { gapMs, paceMs, quickNext, landing, lifted, forgets } = group;
  let each = '';
  for (const { string, hand, phase, printed, wanted } of strokes)
    each += ` ${string}${hand[0]}${phase ? `${phase.at}.${phase.of}` : ''}${printed ?? ''}/${wanted ?? ''}`;
  // Only what a price looks at: the beat is the plectrum's and the rasgueado's.
  const beat = onBeat && (manner.school.plectrum || effect !== null);
  const flags = `${beat ? 'b' : ''}${opens ? 'o' : ''}${overChord ? 'c' : ''}${quickNext ? 'q' : ''}${lifted ? 'l' : ''}`;
  const key = `${manner.id} ${effect ?? ''}${texture} ${gapMs} ${paceMs} ${landing} ${flags}:${each}`;
  // Written out: thousands are made a plan, and copies by spreading are slow.
  return {
    strokes,
    manner,
    onBeat,
    opens,
    effect,
    texture,
    overChord,
    gapMs,
    paceMs,
    quickNext,
    landing,
    lifted,
    forgets,
    key,
  };
}

const FINGERS: readonly Pluck[] = ['i', 'm', 'a', 'c'];

/**
 * Every way to share out one group's strings: fingers in order across the strings, p lowest, and p alone may
 * take several strings by brushing: of more than four notes, unless the filter is lifted. Source: handbook, "Chords" and 13
 * (of 188 accepted chords of up to four notes none has p twice). A plectrum sweeps them in one direction; a
 * strum takes the letters of its effect.
 */
export function sharingsOf(group: StrokeGroup): readonly (readonly Pluck[])[] {
  const count = group.strokes.length;
  const effect: StrokeEffect | null = group.effect ? EFFECTS[group.effect] : null;
  if (count === 0) return [[]];
  if (group.manner.school.plectrum) return [Array<Pluck>(count).fill('down'), Array<Pluck>(count).fill('up')];
  if (effect?.letters) return effect.letters(count);
  const sharings = fingerSharings(count, group.manner.style.littleFinger);
  if (group.lifted || count > MOST_FINGERED) return sharings;
  return sharings.filter((letters) => letters[1] !== 'p');
}

/** Up to so many notes a chord has a finger for each. Source: handbook 13, "chords". */
export const MOST_FINGERED = 4;

export function fingerSharings(count: number, littleFinger = false): readonly (readonly Pluck[])[] {
  const fingers = littleFinger ? FINGERS : FINGERS.slice(0, 3);
  const sharings: Pluck[][] = [];
  for (let subset = 0; subset < 1 << fingers.length; subset++) {
    const chosen = fingers.filter((_, bit) => subset & (1 << bit));
    const thumbs = count - chosen.length;
    if (thumbs < 0) continue;
    sharings.push([...Array<Pluck>(thumbs).fill('p'), ...chosen]);
  }
  return sharings;
}

/** How long after its onset the last string of a group sounds. */
export const tailMs = ({ effect, strokes }: StrokeGroup): number => tailOf(effect, strokes.length);

function tailOf(effect: EffectId | null, strings: number): number {
  if (!effect) return 0;
  return Math.min(LONGEST_TAIL_MS, EFFECTS[effect].msPerString * Math.max(0, strings - 1));
}

/** What the fingers need to find their strings after an effect, in ms. A roll leaves them there: less to find. */
export const findingMs = (effect: EffectId): number =>
  (EFFECTS[effect] as StrokeEffect).away ? FIND_AGAIN_MS : FIND_AGAIN_MS * AFTER_ROLL_SHARE;

/** In steps of a twentieth, so that few are told apart. */
function landingShare(problem: FingeringProblem, { effects }: RightSetting, k: number): number {
  const before = effects[k - 1] ?? null;
  if (before === null || effects[k] !== null) return 0;
  const there = gapMsAt(problem, k) - tailOf(before, problem.moments[k - 1]!.struck.length);
  return Math.round((20 * findingMs(before)) / Math.max(1, there)) / 20;
}
