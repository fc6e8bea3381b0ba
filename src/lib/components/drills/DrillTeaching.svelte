<!-- What a drill trains, how much of it there is, what to watch, how to go through it, and where it is needed. -->
<script lang="ts">
  import { counted } from '$core/messages/units';
  import { barsListed } from '$lib/components/survey/words';
  import type { CountedPart } from '$lib/client/drills/bench.svelte';
  import type { Chosen, DrillKind } from '$core/drills/drill';
  import { playerOf } from '$core/drills/drill';
  import type { DrillCounts } from '$core/drills/counts';
  import type { DrillNeed } from '$lib/server/useCases/drillNeeds';

  interface Props {
    kind: DrillKind;
    chosen: Chosen;
    counts: readonly CountedPart[] | null;
    tooMuch: string | null;
    needs: readonly DrillNeed[];
  }
  let { kind, chosen, counts, tooMuch, needs }: Props = $props();

  const facts = $derived(kind.facts?.(chosen, playerOf(chosen)) ?? []);
  /** Shifts and crossings are told where there are none, too: two ways are compared by them. */
  const countsText = (one: DrillCounts) =>
    [
      counted(one.notes, 'note'),
      counted(one.shifts, 'shift') + (one.shifts > 0 ? ` (the largest ${one.farthestMm} mm)` : ''),
      counted(one.crossings, 'crossing'),
      ...(one.stretches > 0 ? [counted(one.stretches, 'stretch', 'stretches')] : []),
      ...(one.repeats > 0 ? [counted(one.repeats, 'repeat of a finger', 'repeats of a finger')] : []),
      ...(one.pivots > 0 ? [counted(one.pivots, 'change of strings', 'changes of strings')] : []),
    ].join(', ');
</script>

<section aria-labelledby="drill-trains">
  <h3 id="drill-trains" class="mb-1 font-semibold">What it trains</h3>
  <p>{kind.trains}.</p>
  {#if tooMuch}
    <p role="status" class="text-warning mt-1" data-testid="too-much">Not for this hand. {tooMuch}</p>
  {/if}
  {#if counts}
    <div class="mt-1 text-xs" data-testid="drill-counts">
      {#each counts as { words, counts: one }, k (k)}
        <p>{words ? `${words}: ` : ''}{countsText(one)}.</p>
      {/each}
    </div>
  {/if}
</section>
<section aria-labelledby="drill-watch">
  <h3 id="drill-watch" class="mb-1 font-semibold">What to watch</h3>
  <ul class="list-disc pl-4">
    {#each kind.watch as cue (cue)}<li>{cue}</li>{/each}
  </ul>
</section>
<section aria-labelledby="drill-passes">
  <h3 id="drill-passes" class="mb-1 font-semibold">One thing in each pass</h3>
  <ol class="list-decimal pl-4">
    {#each kind.passes as [focus, times] (focus)}<li>{focus}, {times} times</li>{/each}
  </ol>
  <p class="mt-1 text-xs">Order: {kind.steps}. Tempos: ♩ = {kind.ladder.join(', ')}.</p>
</section>
{#if facts.length > 0}
  <section aria-labelledby="drill-facts">
    <h3 id="drill-facts" class="mb-1 font-semibold">On this instrument</h3>
    <ul class="text-xs" data-testid="drill-facts">
      {#each facts as fact, k (k)}<li>{fact}</li>{/each}
    </ul>
  </section>
{/if}
{#if needs.length > 0}
  <section aria-labelledby="drill-needed">
    <h3 id="drill-needed" class="mb-1 font-semibold">Where it is needed</h3>
    <ul class="text-xs" data-testid="drill-needed">
      {#each needs as { pieceId, title, because, bars } (pieceId)}
        <li><a class="link" href="/survey/{pieceId}">{title}</a>: {because}, {barsListed(bars)}</li>
      {/each}
    </ul>
  </section>
{/if}
