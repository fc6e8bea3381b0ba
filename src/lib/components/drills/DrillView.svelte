<!-- The drill bench: what to train, the drill as notation with its fingering, and what to watch. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { goto, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import PageHeader from '$lib/components/PageHeader.svelte';
  import ScorePage from '$lib/components/desk/ScorePage.svelte';
  import WalkPanel from '$lib/components/practice/WalkPanel.svelte';
  import type { DrillKind, Parameter } from '$core/drills/drill';
  import { DRILL_KINDS } from '$core/drills/kinds/all';
  import { pageWidthFor } from '$core/engraving/widths';
  import { spokenPitch } from '$core/music/pitch';
  import { DrillBench } from '$lib/client/drills/bench.svelte';
  import type { DeskOpening } from '$lib/client/desk/stored';
  import type { StoredRoutine } from '$lib/server/repositories/routines';
  import type { DrillNeed } from '$lib/server/useCases/drillNeeds';
  import DrillChoices from './DrillChoices.svelte';
  import DrillTeaching from './DrillTeaching.svelte';
  import MetronomePanel from './MetronomePanel.svelte';
  import PieceRange from './PieceRange.svelte';
  import ToRoutine from './ToRoutine.svelte';

  interface Props {
    /** The piece that drills are cut from, if any. */
    opening: DeskOpening | null;
    needs: Readonly<Record<string, readonly DrillNeed[]>>;
    routines: readonly StoredRoutine[];
  }
  let { opening, needs, routines }: Props = $props();

  const bench = new DrillBench();
  let paperWidth = $state(0);
  let selectedUid = $state<string | null>(null);
  let sending = $state(false);
  let walking = $state(false);
  let walk = $state<{ go: (by: 1 | -1) => void } | null>(null);

  // The link says which drill it is.
  const { searchParams } = page.url;
  bench.choose(searchParams.get('kind'), Object.fromEntries(searchParams));
  const barOf = (name: string) => Math.max(1, Number(searchParams.get(name)) || 1) - 1;
  bench.setRange(barOf('from'), barOf(searchParams.has('to') ? 'to' : 'from'));
  onMount(() => {
    if (opening) void bench.takePiece(opening);
    return () => bench.close();
  });

  const { drill } = $derived(bench);
  $effect(() => {
    if (paperWidth > 0 && !bench.reading) void bench.show(drill, pageWidthFor(paperWidth));
  });

  const noteOf = $derived(new Map(drill.document.score.notes.map((note) => [note.uid, note])));
  const describe = (uid: string) => {
    const note = noteOf.get(uid);
    return note ? spokenPitch(note.pitch, note.soundingMidi) : '';
  };

  /** The address makes the same drill again. */
  const remember = () => replaceState(`/drills?${new URLSearchParams(bench.query)}`, {});
  function chooseKind(id: string) {
    bench.choose(id, {});
    selectedUid = null;
    remember();
  }
  function set(parameter: Parameter, value: string) {
    bench.set(parameter, value);
    selectedUid = null;
    remember();
  }
  function setRange(first: number, last: number) {
    bench.setRange(first, last);
    selectedUid = null;
    remember();
  }
  async function toShelf() {
    sending = true;
    const address = await bench.toShelf();
    sending = false;
    if (address) await goto(address);
  }

  function onkeydown(event: KeyboardEvent) {
    if (event.target instanceof Element && event.target.matches('input, select, textarea')) return;
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'j' || event.key === ';') {
      walking = true;
      walk?.go(event.key === 'j' ? 1 : -1);
      event.preventDefault();
    }
  }
  const none = new Set<string>();
</script>

<svelte:window {onkeydown} />

{#snippet kindButtons(kinds: readonly DrillKind[], nameOf: (kind: DrillKind) => string)}
  <ul class="flex flex-col gap-0.5 max-lg:flex-row max-lg:flex-wrap">
    {#each kinds as kind (kind.id)}
      <li>
        <button
          class="hover:bg-base-200 w-full rounded px-2 py-1 text-left"
          class:bg-base-200={kind.id === bench.kind.id}
          class:font-semibold={kind.id === bench.kind.id}
          aria-pressed={kind.id === bench.kind.id}
          onclick={() => chooseKind(kind.id)}>{nameOf(kind)}</button
        >
      </li>
    {/each}
  </ul>
{/snippet}

<div class="flex min-h-screen flex-col lg:h-screen">
  <PageHeader title="Drill bench">
    {#snippet actions()}
      <a class="btn btn-sm btn-ghost" href="/routines">Routines</a>
      <button class="btn btn-sm btn-outline" onclick={() => bench.saveEdition()}>Save drill</button>
      <button class="btn btn-sm btn-primary" onclick={toShelf} disabled={sending}>
        {sending ? 'Putting it there …' : 'Put on the shelf'}
      </button>
    {/snippet}
  </PageHeader>

  <div class="flex min-h-0 flex-1 flex-col lg:flex-row">
    <nav
      class="border-base-300 bg-base-100 shrink-0 p-3 text-sm max-lg:border-b lg:w-52 lg:overflow-y-auto lg:border-r"
      aria-label="Drills"
    >
      {#if bench.source}
        <h2 class="mb-1 px-2 font-semibold">From {bench.source.score.title}</h2>
        <div class="px-2">
          <PieceRange source={bench.source} range={bench.range} {setRange} />
        </div>
        {@render kindButtons(bench.pieceKinds, ({ title }) => title.split(/ of | on /)[0]!)}
        <h2 class="mt-4 mb-1 px-2 font-semibold">For every hand</h2>
      {/if}
      {@render kindButtons(DRILL_KINDS, ({ title }) => title)}
    </nav>

    <!-- What scrolls must be within reach of the keys. -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <main
      tabindex="0"
      class="min-h-0 min-w-0 flex-1 overflow-y-auto p-4 max-lg:h-[60vh]"
      aria-busy={bench.counts === null}
    >
      {#if bench.reading}
        <p class="p-12 text-center font-serif text-xl" role="status">Reading the piece …</p>
      {:else}
        <h2 class="mb-3 font-serif text-2xl font-semibold">{drill.title}</h2>
        <div
          class="rounded-box p-2"
          style:background="var(--paper)"
          data-shown={bench.shown}
          bind:clientWidth={paperWidth}
        >
          {#if bench.sheet}
            <ScorePage
              sheet={bench.sheet}
              {selectedUid}
              conflicts={none}
              corrected={none}
              noticed={none}
              ranged={none}
              {describe}
              select={(uid) => (selectedUid = uid)}
            />
          {:else}
            <p class="p-12 text-center font-serif text-xl" role="status">Setting the drill …</p>
          {/if}
        </div>
      {/if}
    </main>

    <aside
      class="border-base-300 bg-base-100 flex shrink-0 flex-col gap-4 p-4 text-sm max-lg:border-t lg:w-76 lg:overflow-y-auto lg:border-l"
      aria-label="The drill"
    >
      {#if bench.notice}<p role="alert" class="text-warning">{bench.notice}</p>{/if}
      <DrillChoices kind={bench.kind} chosen={drill.chosen} {set} />
      <button class="btn btn-sm self-start" aria-pressed={walking} onclick={() => (walking = !walking)}>
        {walking ? 'Stop stepping' : 'Step by step'} <kbd class="kbd kbd-xs">j</kbd>
      </button>
      {#if walking && bench.planned}
        <WalkPanel
          bind:this={walk}
          plan={bench.planned.plan}
          score={bench.planned.drill.document.score}
          scripts={bench.planned.scripts}
          board={drill.player.fretboard}
          {selectedUid}
          select={(uid) => (selectedUid = uid)}
        />
      {/if}
      <DrillTeaching
        kind={bench.kind}
        chosen={drill.chosen}
        counts={bench.counts}
        tooMuch={bench.tooMuch}
        needs={needs[bench.kind.id] ?? []}
      />
      <MetronomePanel metre={drill.music.metre} ladder={bench.kind.ladder} />
      <ToRoutine kind={bench.kind} title={drill.title} query={bench.query} {routines} />
      {#if bench.kind.caution}
        <p class="border-base-300 border-l-2 pl-3 text-xs">{bench.kind.caution}</p>
      {/if}
    </aside>
  </div>
</div>
