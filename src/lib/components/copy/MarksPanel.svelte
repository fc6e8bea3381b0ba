<!-- How many marks are printed: of the whole, and of bars that are to have more or fewer. -->
<script lang="ts">
  import type { Whose } from '$core/copy/paper';
  import { barsNamed } from '$core/copy/rowTexts';
  import { DENSITIES, type Density } from '$core/marks/style';
  import type { Copy } from '$lib/client/copy/copy.svelte';
  import { DENSITY_NAMES } from './words';

  let { copy }: { copy: Copy } = $props();

  const { desk } = $derived(copy);
  const own = $derived(desk.session.showing.densityOfBar);
  const score = $derived(desk.planning.score);
  const ownBars = $derived(
    (score?.measures ?? []).flatMap(({ uid, number }) => {
      const density = own.get(uid);
      return density ? [{ uid, number, density }] : [];
    }),
  );
  let bars = $state('');
  let density = $state<Density>('full');

  function setDensity(value: Density) {
    desk.setDensity(value);
  }
  function setBars() {
    if (!score || bars.trim() === '') return;
    const named = [...barsNamed(score, bars)];
    desk.session.decide(
      named.map((bar) => desk.session.change(score.measures[bar]!.uid, 'barDensity', density)),
    );
    bars = '';
  }
  const clear = (uid: string) => desk.set(uid, 'barDensity', null);
  const clearKept = () =>
    desk.session.decide(
      [...desk.session.showing.kept].map((uid) => desk.session.change(uid, 'alwaysPrint', null)),
    );
</script>

<section aria-labelledby="copy-marks">
  <h2 id="copy-marks" class="mb-2 font-semibold">Marks</h2>
  <div class="join w-full" role="group" aria-label="How many marks">
    {#each DENSITIES as one (one)}
      <button
        class="btn btn-sm join-item flex-1 font-normal"
        class:btn-active={desk.session.markStyle.density === one}
        aria-pressed={desk.session.markStyle.density === one}
        onclick={() => setDensity(one)}>{DENSITY_NAMES[one]}</button
      >
    {/each}
  </div>
  <p class="mt-1 text-xs" data-testid="mark-count">
    {copy.markCount} marks on {desk.planning.plan?.notes.length ?? 0} notes{copy.density === 'sparse'
      ? ': the whole fingering can be read from them'
      : ''}.
  </p>
  <label class="mt-3 flex items-center justify-between gap-2">
    Whose marks
    <select
      class="select select-sm w-36"
      value={copy.options.whose}
      onchange={(event) => copy.set({ whose: event.currentTarget.value as Whose })}
    >
      <option value="all">all</option>
      <option value="decided">ink and printed</option>
      <option value="ink">ink alone</option>
    </select>
  </label>
  <label class="mt-3 flex items-center justify-between gap-2">
    Proposed, decided, printed
    <select
      class="select select-sm w-36"
      value={copy.options.looks}
      onchange={(event) => copy.set({ looks: event.currentTarget.value === 'alike' ? 'alike' : 'told' })}
    >
      <option value="told">told apart</option>
      <option value="alike">look alike</option>
    </select>
  </label>
  <form
    class="mt-3 flex items-end gap-2"
    onsubmit={(event) => {
      event.preventDefault();
      setBars();
    }}
  >
    <label class="flex min-w-0 flex-1 flex-col gap-1 text-xs">
      Other marks in bars
      <input class="input input-sm w-full" placeholder="3, 5-8" bind:value={bars} />
    </label>
    <select class="select select-sm w-28" aria-label="Marks in these bars" bind:value={density}>
      {#each DENSITIES as one (one)}<option value={one}>{DENSITY_NAMES[one]}</option>{/each}
    </select>
    <button class="btn btn-sm">Set</button>
  </form>
  {#if ownBars.length > 0}
    <ul class="mt-2 flex flex-wrap gap-1 text-xs">
      {#each ownBars as { uid, number, density: is } (uid)}
        <li class="border-base-300 rounded border px-1.5 py-0.5">
          bar {number}: {DENSITY_NAMES[is]}
          <button class="link ml-1" aria-label="Bar {number} as the rest" onclick={() => clear(uid)}
            >undo</button
          >
        </li>
      {/each}
    </ul>
  {/if}
  {#if desk.session.showing.kept.size > 0}
    <p class="mt-2 text-xs">
      {desk.session.showing.kept.size}
      {desk.session.showing.kept.size === 1 ? 'note is' : 'notes are'} always marked (h on the desk).
      <button class="link" onclick={clearKept}>None</button>
    </p>
  {/if}
</section>
