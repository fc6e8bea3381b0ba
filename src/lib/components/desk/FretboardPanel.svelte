<!-- The grip of the selected moment in real proportions, and ghosted the one that comes next. -->
<script lang="ts">
  import { browser } from '$app/environment';
  import { boardPicture, gripsAt, type Tip } from '$core/engraving/fretboardPicture';
  import { groupedBy } from '$core/fingering/problem/groupedBy';
  import type { FingeringPlan } from '$core/fingering/report/plan';
  import { type Fretboard, withCapo } from '$core/instrument/fretboard';
  import { roman } from '$core/music/roman';
  import type { Score } from '$core/score/model';

  interface Props {
    plan: FingeringPlan;
    score: Score;
    board: Fretboard;
    momentIndex: number;
  }
  let { plan, score, board, momentIndex }: Props = $props();

  const HANDED = 'oculon-left-handed';
  let mirrored = $state(browser && localStorage.getItem(HANDED) === 'yes');
  $effect(() => localStorage.setItem(HANDED, mirrored ? 'yes' : 'no'));

  const onsetOf = $derived(new Map(score.notes.map((note) => [note.uid, note.onsetTicks])));
  const moments = $derived(
    [...groupedBy(plan.notes, (note) => note.momentIndex)].map(([index, notes]) => ({
      index,
      notes,
      ticks: onsetOf.get(notes[0]!.uid) ?? 0,
    })),
  );
  const picture = $derived.by(() => {
    const at = moments.findIndex(({ index }) => index === momentIndex);
    if (at < 0) return null;
    const { here, next } = gripsAt(plan.fingers, moments, at);
    return boardPicture(withCapo(board, score.capo), here, next, mirrored);
  });

  /** Whoever asks for it wants to see it. */
  const inSight = (section: HTMLElement) => section.scrollIntoView({ block: 'nearest' });

  const RADIUS = 4.2;
  /** Room around the board, in mm. */
  const EDGE = { x: 9, top: 7, bottom: 11 };
  const words = (tips: readonly Tip[]) =>
    tips
      .map(({ finger, string, fret }) =>
        finger === 0 ? `string ${string} open` : `finger ${finger} on string ${string}, fret ${fret}`,
      )
      .join('; ') || 'no finger';
</script>

{#if picture}
  <section aria-labelledby="board-heading" class="text-sm" data-testid="fretboard" {@attach inSight}>
    <div class="mb-1 flex items-baseline justify-between">
      <h3 id="board-heading" class="text-xs">The grip here, and the next one</h3>
      <label class="flex items-center gap-1.5 text-xs">
        <input type="checkbox" class="checkbox checkbox-xs" bind:checked={mirrored} /> left-handed
      </label>
    </div>
    <svg
      viewBox="{-EDGE.x} {-EDGE.top} {picture.right + 2 * EDGE.x} {picture.bottom + EDGE.top + EDGE.bottom}"
      class="block w-full"
      role="img"
      aria-label="Here: {words(picture.tips)}. Next: {words(picture.ghosts)}."
      font-family="'Source Serif 4 Variable', serif"
    >
      {#each picture.wires as { fret, x, top, bottom } (fret)}
        <line
          x1={x}
          x2={x}
          y1={top - 2.5}
          y2={bottom + 2.5}
          stroke="currentColor"
          stroke-width={fret === 0 ? 2.4 : 0.8}
          opacity={fret === 0 ? 0.9 : 0.5}
          data-wire={fret}
        />
      {/each}
      {#each picture.strings as { string, x1, y1, x2, y2 } (string)}
        <line {x1} {y1} {x2} {y2} stroke="currentColor" stroke-width={0.35 + 0.12 * string} opacity="0.75" />
      {/each}
      {#each picture.wires.slice(1) as { fret, x }, k (fret)}
        {@const before = picture.wires[k]!.x}
        <text
          x={(x + before) / 2}
          y={picture.bottom + 10}
          text-anchor="middle"
          font-size="5.5"
          fill="currentColor">{roman(fret)}</text
        >
      {/each}
      {#each picture.ghosts as tip (tip.id)}
        <g data-ghost={tip.finger}>
          <circle
            cx={tip.x}
            cy={tip.y}
            r={RADIUS}
            fill="var(--color-base-100)"
            fill-opacity="0.75"
            stroke="currentColor"
            stroke-width="0.5"
            stroke-dasharray="1.6 1.2"
          />
          {#if tip.finger > 0}
            <text x={tip.x} y={tip.y + 1.9} text-anchor="middle" font-size="5.6" fill="currentColor"
              >{tip.finger}</text
            >
          {/if}
        </g>
      {/each}
      {#each picture.tips as tip (tip.id)}
        <g data-tip={tip.finger} data-string={tip.string} data-fret={tip.fret}>
          {#if tip.finger === 0}
            <circle cx={tip.x} cy={tip.y} r={2.6} fill="none" stroke="currentColor" stroke-width="0.9" />
          {:else}
            <circle
              cx={tip.x}
              cy={tip.y}
              r={RADIUS}
              fill={tip.struck ? 'currentColor' : 'var(--color-base-100)'}
              stroke="currentColor"
              stroke-width="0.9"
            />
            <text
              x={tip.x}
              y={tip.y + 1.9}
              text-anchor="middle"
              font-size="5.8"
              font-weight="700"
              fill={tip.struck ? 'var(--color-base-100)' : 'currentColor'}>{tip.finger}</text
            >
          {/if}
        </g>
      {/each}
    </svg>
    <p class="text-xs opacity-80">
      Filled: struck now. Outlined: lies. Dashed: next. The nut is on the {mirrored ? 'right' : 'left'}, the
      first string above.
    </p>
  </section>
{/if}
