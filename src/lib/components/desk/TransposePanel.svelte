<!-- The piece at another pitch: which pitches lie on the guitar, and what each costs to play. -->
<script lang="ts">
  import { points } from '$core/messages/units';
  import { PIECE } from '$core/fingering/edition/attributes';
  import type { Score } from '$core/score/model';
  import type { Desk } from '$lib/client/desk/desk.svelte';
  import { keyName } from '$lib/components/shelf/describe';
  import type { Transpositions } from '$workers/plannerService';

  interface Props {
    desk: Desk;
    score: Score;
  }
  let { desk, score }: Props = $props();

  let found = $state.raw<Transpositions | null>(null);
  let busy = $state(false);

  async function compare() {
    busy = true;
    found = await desk.planning.askTranspositions();
    busy = false;
  }

  const stepWords = (semitones: number) =>
    semitones === 0 ? 'file' : `${semitones > 0 ? '+' : '−'}${Math.abs(semitones)}`;
  const outsideWords = (outside: number) => (outside === 0 ? 'all fit' : `${outside} outside`);
  const mode = $derived(score.keys[0]?.mode ?? null);
</script>

<div class="mt-3">
  <button class="btn btn-sm" disabled={busy} onclick={() => void compare()}>Compare transpositions</button>
  {#if busy}<span role="status" class="ml-2">planning each …</span>{/if}
  {#if found}
    <table class="mt-2 w-full whitespace-nowrap" data-testid="transpositions">
      <caption class="pb-1 text-left leading-snug whitespace-normal">
        Effort of {found.bars < score.measures.length ? `the first ${found.bars} bars` : 'the whole piece'} without
        ink
      </caption>
      <tbody>
        {#each found.rows as row (row.semitones)}
          <tr class="border-base-300 border-t">
            <th scope="row" class="py-1 pr-2 text-left font-medium">{stepWords(row.semitones)}</th>
            <td class="pr-2">{keyName({ fifths: row.fifths, mode })}</td>
            <td class="pr-2">{outsideWords(row.outside)}</td>
            <td class="pr-2 text-right tabular-nums">{points(row.cost)}</td>
            <td class="text-right">
              {#if row.semitones === score.transposedBy}
                now
              {:else}
                <button
                  class="btn btn-xs"
                  aria-label="Take {stepWords(row.semitones)}"
                  onclick={() => desk.set(PIECE, 'transpose', row.semitones === 0 ? null : row.semitones)}
                >
                  Take
                </button>
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</div>
