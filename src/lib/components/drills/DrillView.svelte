<!-- The drill bench: what to train, the drill as notation with its fingering, and what to watch. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { goto, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import Rosette from '$lib/components/Rosette.svelte';
  import ScorePage from '$lib/components/desk/ScorePage.svelte';
  import { DRILL_KINDS } from '$core/drills/kinds/all';
  import { pageWidthFor } from '$core/engraving/widths';
  import { spokenPitch } from '$core/music/pitch';
  import MetronomePanel from './MetronomePanel.svelte';
  import { DrillBench } from '$lib/client/drills/bench.svelte';

  const bench = new DrillBench();
  let paperWidth = $state(0);
  let selectedUid = $state<string | null>(null);
  let opening = $state(false);

  // The link says which drill it is.
  bench.choose(page.url.searchParams.get('kind'), Object.fromEntries(page.url.searchParams));
  onMount(() => () => bench.close());

  const { drill } = $derived(bench);
  $effect(() => {
    if (paperWidth > 0) void bench.show(drill, pageWidthFor(paperWidth));
  });

  const noteOf = $derived(new Map(drill.document.score.notes.map((note) => [note.uid, note])));
  const describe = (uid: string) => {
    const note = noteOf.get(uid);
    return note ? spokenPitch(note.pitch, note.soundingMidi) : '';
  };

  /** The address makes the same drill again. */
  function remember() {
    const query = new URLSearchParams({ kind: bench.kind.id, ...bench.drill.chosen });
    replaceState(`/drills?${query}`, {});
  }
  function chooseKind(id: string) {
    bench.choose(id, {});
    selectedUid = null;
    remember();
  }
  function set(parameter: string, value: string) {
    bench.set(parameter, value);
    remember();
  }
  async function toShelf() {
    opening = true;
    const address = await bench.toShelf();
    opening = false;
    if (address) await goto(address);
  }
  const none = new Set<string>();
</script>

<div class="flex min-h-screen flex-col lg:h-screen">
  <header class="border-base-300 bg-base-100 flex flex-wrap items-center gap-x-3 gap-y-1 border-b px-4 py-2">
    <a href="/shelf" class="flex items-center gap-2" aria-label="To the shelf">
      <Rosette size={24} />
      <span class="text-sm underline-offset-4 hover:underline">Shelf</span>
    </a>
    <span class="opacity-40" aria-hidden="true">/</span>
    <h1 class="font-serif text-lg font-semibold">Drill bench</h1>
    <div class="ml-auto flex items-center gap-2">
      <button class="btn btn-sm btn-outline" onclick={() => bench.saveEdition()}>Save drill</button>
      <button class="btn btn-sm btn-primary" onclick={toShelf} disabled={opening}>
        {opening ? 'Putting it there …' : 'Put on the shelf'}
      </button>
    </div>
  </header>

  <div class="flex min-h-0 flex-1 flex-col lg:flex-row">
    <nav
      class="border-base-300 bg-base-100 shrink-0 p-4 text-sm max-lg:border-b lg:w-52 lg:overflow-y-auto lg:border-r"
      aria-label="Drills"
    >
      <ul class="flex flex-col gap-1 max-lg:flex-row max-lg:flex-wrap">
        {#each DRILL_KINDS as kind (kind.id)}
          <li>
            <button
              class="hover:bg-base-200 w-full rounded px-2 py-1.5 text-left"
              class:bg-base-200={kind === bench.kind}
              class:font-semibold={kind === bench.kind}
              aria-pressed={kind === bench.kind}
              onclick={() => chooseKind(kind.id)}>{kind.title}</button
            >
          </li>
        {/each}
      </ul>
    </nav>

    <!-- What scrolls must be within reach of the keys. -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <main
      tabindex="0"
      class="min-h-0 min-w-0 flex-1 overflow-y-auto p-4 max-lg:h-[60vh]"
      aria-busy={bench.counts === null}
    >
      <h2 class="mb-3 font-serif text-2xl font-semibold">{drill.title}</h2>
      <div class="rounded-box p-2" style:background="var(--paper)" bind:clientWidth={paperWidth}>
        {#if bench.sheet}
          <ScorePage
            sheet={bench.sheet}
            {selectedUid}
            conflicts={none}
            corrected={none}
            noticed={none}
            {describe}
            select={(uid) => (selectedUid = uid)}
          />
        {:else}
          <p class="p-12 text-center font-serif text-xl" role="status">Setting the drill …</p>
        {/if}
      </div>
    </main>

    <aside
      class="border-base-300 bg-base-100 flex shrink-0 flex-col gap-5 p-4 text-sm max-lg:border-t lg:w-76 lg:overflow-y-auto lg:border-l"
      aria-label="The drill"
    >
      {#if bench.notice}<p role="alert" class="text-warning">{bench.notice}</p>{/if}
      <section aria-labelledby="drill-choices" class="flex flex-col gap-2">
        <h3 id="drill-choices" class="font-semibold">What is played</h3>
        {#each bench.kind.parameters as parameter (parameter.id)}
          <label class="flex flex-col gap-1 text-xs">
            {parameter.label}
            <select
              class="select select-sm w-full"
              value={drill.chosen[parameter.id]}
              onchange={(event) => set(parameter.id, event.currentTarget.value)}
            >
              {#each parameter.values as [value, words] (value)}<option {value}>{words}</option>{/each}
            </select>
          </label>
        {/each}
      </section>
      <section aria-labelledby="drill-trains">
        <h3 id="drill-trains" class="mb-1 font-semibold">What it trains</h3>
        <p>{bench.kind.trains}.</p>
        {#if bench.counts}
          <p class="mt-1 text-xs" data-testid="drill-counts">
            {bench.counts.notes} notes, {bench.counts.shifts} shifts{bench.counts.shifts > 0
              ? ` (the largest ${bench.counts.farthestMm} mm)`
              : ''}, {bench.counts.crossings} crossings, {bench.counts.repeats} repeats of a finger.
          </p>
        {/if}
      </section>
      <section aria-labelledby="drill-watch">
        <h3 id="drill-watch" class="mb-1 font-semibold">What to watch</h3>
        <ul class="list-disc pl-4">
          {#each bench.kind.watch as cue (cue)}<li>{cue}</li>{/each}
        </ul>
        <p class="mt-2 text-xs">One thing in each pass: {bench.kind.passes.join('; then ')}.</p>
      </section>
      <MetronomePanel metre={drill.music.metre} ladder={bench.kind.ladder} />
      {#if bench.kind.caution}
        <p class="border-base-300 border-l-2 pl-3 text-xs">{bench.kind.caution}</p>
      {/if}
    </aside>
  </div>
</div>
