<!-- Moment by moment through a passage: what each hand does here, what stays, what could lie early; grip now and next. -->
<script lang="ts">
  import FretboardPanel from '$lib/components/desk/FretboardPanel.svelte';
  import { actionText } from '$core/messages/hand';
  import { strokeActionText } from '$core/messages/strokes';
  import type { FingeringPlan } from '$core/fingering/report/plan';
  import type { Fretboard } from '$core/instrument/fretboard';
  import { beatsOf } from '$core/practice/beats';
  import { barAround, joinAfter, type Scripts, stepFrom, walkSteps } from '$core/practice/walk';
  import { placeOf, tempoAt } from '$core/score/places';
  import type { Score } from '$core/score/model';
  import type { TickRange } from '$core/score/range';

  interface Props {
    plan: FingeringPlan;
    score: Score;
    scripts: Scripts | null;
    board: Fretboard;
    selectedUid: string | null;
    select: (uid: string) => void;
    /** A passage that was chosen before; then it is gone through first. */
    passage?: TickRange | null;
  }
  let { plan, score, scripts, board, selectedUid, select, passage = null }: Props = $props();

  type Span = 'all' | 'passage' | 'bar' | 'join';
  const SPANS: Readonly<Record<Span, string>> = {
    all: 'the whole',
    passage: 'what is marked',
    bar: 'this bar',
    join: 'over the bar line',
  };
  type Hands = 'both' | 'left' | 'right';

  let span = $state<Span>('all');
  let hands = $state<Hands>('both');
  /** What is gone round stays while one steps through it. */
  let range = $state.raw<TickRange | null>(null);

  const steps = $derived(scripts ? walkSteps(plan, score, scripts) : []);
  const at = $derived(
    Math.max(
      0,
      steps.findIndex(({ uids }) => uids.includes(selectedUid ?? '')),
    ),
  );
  const step = $derived(steps[at]);
  const place = (ticks: number) => placeOf(score, ticks);
  const where = $derived(step ? place(step.ticks) : null);
  const tempo = $derived(step ? Math.round(tempoAt(score, step.ticks)) : 0);
  const beats = $derived.by(() => {
    const metre = score.metres.findLast(({ tick }) => tick <= (step?.ticks ?? 0)) ?? {
      beats: 4,
      beatType: 4,
    };
    return beatsOf(metre);
  });
  const beatHere = $derived(Math.floor(Number(where?.beat ?? 1)) - 1);

  /** "1 stays where it lies". */
  const keeps = $derived.by(() => {
    const fingers = (step?.keeps ?? []).map(({ finger }) => finger).sort();
    if (fingers.length === 0) return '';
    return fingers.length === 1
      ? `${fingers[0]} stays where it lies`
      : `${fingers.join(', ')} stay where they lie`;
  });

  const spans = $derived(
    (['all', ...(passage ? ['passage'] : []), 'bar', 'join'] as Span[]).map((id) => ({
      id,
      name: SPANS[id],
    })),
  );
  $effect(() => {
    if (passage) choose('passage');
  });

  function choose(next: Span) {
    span = next;
    const ticks = step?.ticks ?? 0;
    range =
      next === 'all'
        ? null
        : next === 'passage'
          ? passage
          : next === 'bar'
            ? barAround(score, ticks)
            : joinAfter(score, ticks);
  }
  export function go(by: 1 | -1) {
    const next = steps[stepFrom(steps, at, by, range)];
    if (next) select(next.uids[0]!);
  }
</script>

<section aria-labelledby="walk-heading" class="flex flex-col gap-2 text-sm" data-testid="walk">
  <div class="flex items-center gap-2">
    <h2 id="walk-heading" class="font-semibold">Step by step</h2>
    <div class="ml-auto flex gap-1">
      <button class="btn btn-xs" onclick={() => go(-1)} aria-label="Step back" title="Step back (;)">←</button
      >
      <button
        class="btn btn-xs btn-primary"
        onclick={() => go(1)}
        aria-label="Next step"
        title="Next step (j)">→</button
      >
    </div>
  </div>
  <div class="grid grid-cols-2 gap-2 text-xs">
    <label class="flex flex-col gap-0.5">
      Goes round
      <select
        class="select select-xs w-full"
        value={span}
        onchange={(event) => choose(event.currentTarget.value as Span)}
      >
        {#each spans as { id, name } (id)}<option value={id}>{name}</option>{/each}
      </select>
    </label>
    <label class="flex flex-col gap-0.5">
      Hands
      <select class="select select-xs w-full" bind:value={hands}>
        <option value="both">both</option>
        <option value="left">left alone</option>
        <option value="right">right alone</option>
      </select>
    </label>
  </div>
  {#if !scripts}
    <p role="status">Writing the script …</p>
  {:else if step && where}
    <div class="flex items-center gap-2" aria-live="polite">
      <span class="tabular-nums" data-testid="walk-place">Bar {where.bar}, beat {where.beat}</span>
      <span class="flex items-center gap-1" aria-hidden="true">
        {#each beats as { accent }, k (k)}
          <span
            class="border-base-content rounded-full border {accent > 0 ? 'size-2.5' : 'size-2'}"
            class:bg-base-content={k === beatHere}
          ></span>
        {/each}
      </span>
      <span class="ml-auto tabular-nums">♩ = {tempo}</span>
    </div>
    {#if hands !== 'right'}
      <ul class="border-base-300 border-t pt-1 leading-snug" aria-label="Left hand" data-testid="walk-left">
        {#each step.hand as action, k (k)}
          <li class:opacity-75={action.kind === 'lift'}>{actionText(action, place)}</li>
        {:else}
          {#if !keeps}<li class="opacity-75">the left hand does nothing</li>{/if}
        {/each}
        {#if keeps}<li class="opacity-75">{keeps}</li>{/if}
        {#each step.early as action, k (k)}
          <li class="italic opacity-85">{actionText(action, place)}</li>
        {/each}
      </ul>
    {/if}
    {#if hands !== 'left'}
      <ul class="border-base-300 border-t pt-1 leading-snug" aria-label="Right hand" data-testid="walk-right">
        {#each step.strokes as action, k (k)}
          <li>{strokeActionText(action)}</li>
        {:else}
          <li class="opacity-75">the right hand does nothing</li>
        {/each}
      </ul>
    {/if}
    {#if hands !== 'right'}
      <FretboardPanel {plan} {score} {board} momentIndex={step.momentIndex} />
    {/if}
  {/if}
</section>
