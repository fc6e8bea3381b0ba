/**
 * Drones: pitches that stay while other notes move, and so own their strings. Source: handbook 13, "pedal".
 *
 * A pitch that comes again at once in its line; a chord that does, if all of it could be open; the pitch that returns in
 * a figure read as pedal; and the notes of an accompaniment that come again with every note of another voice and could
 * all be open.
 */
import type { Figure } from '../../figures/figure';
import { groupedBy } from './groupedBy';
import { byVoice } from './lines';
import type { Strike } from './strike';

/** From so many times on a pitch returns. */
const LEAST_TIMES = 3;

export function dronesAmong(
  strikes: readonly Strike[],
  figures: readonly Figure[],
  isOpen: (midi: number) => boolean,
): ReadonlySet<number> {
  const voices = byVoice(strikes);
  const pedals = figures.filter(({ texture }) => texture === 'pedal');
  return new Set(
    [
      ...againInLine(strikes),
      ...voices.flatMap((voice) => openAgain(voice, isOpen)),
      ...pedals.flatMap(({ strikes: own }) => returning(own.map((index) => strikes[index]!))),
      ...voices.flatMap((voice) =>
        voices.filter((other) => other !== voice).flatMap((other) => openUnder(voice, other, isOpen)),
      ),
    ].map(({ index }) => index),
  );
}

/** One pitch again and again in a line, whatever voice it is in. */
function againInLine(strikes: readonly Strike[]): readonly Strike[] {
  const nextOf = new Map(strikes.flatMap((one) => (one.lineFrom === null ? [] : [[one.lineFrom, one]])));
  return strikes.filter((strike) => {
    const neighbours = [
      strike.lineFrom === null ? null : strikes[strike.lineFrom]!,
      nextOf.get(strike.index),
    ];
    const known = neighbours.filter((one) => one !== null && one !== undefined);
    return known.length > 0 && known.every(({ midi }) => midi === strike.midi);
  });
}

/** A chord again and again, all of which could be open. */
function openAgain(voice: readonly Strike[], isOpen: (midi: number) => boolean): readonly Strike[] {
  const groups = [...groupedBy(voice, ({ onsetTicks }) => onsetTicks).values()];
  const isSame = (group: readonly Strike[], other: readonly Strike[] | undefined) =>
    other === undefined ||
    (other.length === group.length && group.every(({ midi }, n) => midi === other[n]!.midi));
  return groups
    .filter((group, k) => isSame(group, groups[k - 1]) && isSame(group, groups[k + 1]))
    .filter((group) => groups.length > 1 && group.every(({ midi }) => isOpen(midi)))
    .flat();
}

/** The pitch of a pedal: the one that comes most often. */
function returning(figure: readonly Strike[]): readonly Strike[] {
  const byPitch = [...groupedBy(figure, ({ midi }) => midi).values()];
  const [most, next] = byPitch.sort((a, b) => b.length - a.length);
  return most && most.length >= LEAST_TIMES && most.length > (next?.length ?? 0) ? most : [];
}

/** Between notes of a voice that moves: what comes again in every one of its rounds, if all of it could be open. */
function openUnder(
  voice: readonly Strike[],
  moving: readonly Strike[],
  isOpen: (midi: number) => boolean,
): readonly Strike[] {
  const rounds = moving.map((from, k) => {
    const end = moving[k + 1]?.onsetTicks ?? Infinity;
    return voice.filter(({ onsetTicks }) => onsetTicks >= from.onsetTicks && onsetTicks < end);
  });
  const found: Strike[] = [];
  for (let k = 0; k + LEAST_TIMES <= rounds.length; k++) {
    const some = rounds.slice(k, k + LEAST_TIMES);
    const moves = new Set(moving.slice(k, k + LEAST_TIMES).map(({ midi }) => midi)).size > 1;
    const pitches = new Set(
      some[0]!
        .map(({ midi }) => midi)
        .filter((midi) => some.every((round) => round.some((one) => one.midi === midi))),
    );
    if (!moves || ![...pitches].every(isOpen)) continue;
    const drones = some.flat().filter(({ midi }) => pitches.has(midi));
    const isAlone = some
      .flat()
      .every(
        (note) => pitches.has(note.midi) || !drones.some(({ onsetTicks }) => onsetTicks === note.onsetTicks),
      );
    if (isAlone) found.push(...drones);
  }
  return found;
}
