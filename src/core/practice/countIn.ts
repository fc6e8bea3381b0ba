/** What is counted before the music begins. */

/**
 * Beats of the metronome: a whole bar, and before an upbeat as much of the next as the upbeat leaves, so that the
 * upbeat falls where it belongs. Source: common practice.
 * @param beats of a bar
 * @param upbeat beats that the music has before its first bar line; less than a bar
 * @throws RangeError for an upbeat of a bar or more
 */
export function countInBeats(beats: number, upbeat: number): number {
  if (!Number.isInteger(upbeat) || upbeat < 0 || upbeat >= beats)
    throw new RangeError(`an upbeat of ${upbeat} beats in a bar of ${beats}`);
  return upbeat === 0 ? beats : 2 * beats - upbeat;
}
