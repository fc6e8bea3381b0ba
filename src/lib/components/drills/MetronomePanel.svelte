<!-- A metronome with the drill's metre: from slow to where it is at home, one step up when it goes. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { beatsOf } from '$core/practice/beats';
  import { countInBeats } from '$core/practice/countIn';
  import { Metronome } from '$lib/client/drills/metronome.svelte';

  interface Props {
    metre: { readonly beats: number; readonly beatType: number };
    ladder: readonly number[];
  }
  let { metre, ladder }: Props = $props();

  let step = $state(0);
  let grouping = $state('');
  const tempo = $derived(ladder[Math.min(step, ladder.length - 1)]!);
  const beats = $derived(beatsOf(metre, grouping.split('+').map(Number)));
  /** Beats before the first bar line. */
  let upbeat = $state(0);
  const countIn = $derived(countInBeats(beats.length, Math.min(upbeat, beats.length - 1)));
  const metronome = new Metronome(
    () => beats,
    () => tempo,
    () => countIn,
  );
  onMount(() => () => metronome.close());
  const canRegroup = $derived(metre.beats === 6);
</script>

<section aria-labelledby="metronome">
  <h3 id="metronome" class="mb-1 font-semibold">Metronome</h3>
  <div class="flex flex-wrap items-center gap-2">
    <button class="btn btn-sm" aria-pressed={metronome.running} onclick={() => metronome.toggle()}>
      {metronome.running ? 'Stop' : 'Start'}
    </button>
    <button class="btn btn-sm btn-ghost" aria-label="Slower" disabled={step === 0} onclick={() => step--}
      >−</button
    >
    <span class="tabular-nums" data-testid="tempo">♩ = {tempo}</span>
    <button
      class="btn btn-sm btn-ghost"
      aria-label="Faster"
      disabled={step >= ladder.length - 1}
      onclick={() => step++}>+</button
    >
  </div>
  {#if canRegroup}
    <label class="mt-2 flex items-center gap-2 text-xs">
      Beats in
      <select class="select select-xs w-24" bind:value={grouping}>
        <option value="">3 + 3</option>
        <option value="2+2+2">2 + 2 + 2</option>
      </select>
    </label>
  {/if}
  <label class="mt-2 flex items-center gap-2 text-xs">
    Begins
    <select class="select select-xs w-40" bind:value={upbeat}>
      <option value={0}>on the first beat</option>
      {#each beats.slice(1) as _, k (k)}
        <option value={k + 1}>with {k + 1} {k === 0 ? 'beat' : 'beats'} before it</option>
      {/each}
    </select>
  </label>
  <div class="mt-2 flex items-center gap-1.5" aria-hidden="true" data-testid="beats">
    {#each beats as { accent }, k (k)}
      <span
        class="border-base-content rounded-full border {accent > 0 ? 'size-3' : 'size-2'}"
        class:bg-base-content={metronome.beat === k}
      ></span>
    {/each}
    <span class="ml-2 text-xs">{metronome.countedIn ? 'counted in' : ''}</span>
  </div>
</section>
