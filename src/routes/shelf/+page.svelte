<script lang="ts">
  import { onMount } from 'svelte';
  import { beforeNavigate, invalidateAll } from '$app/navigation';
  import FileUp from '@lucide/svelte/icons/file-up';
  import Search from '@lucide/svelte/icons/search';
  import { startEngraver, startPlanner } from '$lib/client/planner';
  import Rosette from '$lib/components/Rosette.svelte';
  import SaveMany from '$lib/components/shelf/SaveMany.svelte';
  import PieceCard from '$lib/components/shelf/PieceCard.svelte';
  import ImportResults from '$lib/components/shelf/ImportResults.svelte';
  import { isFound, type Order, ORDERS, sorted } from '$lib/components/shelf/order';
  import { changePiece, type PieceChanges } from '$lib/client/pieces';
  import {
    importAsNewer,
    importFile,
    importFiles,
    type ImportResult,
  } from '$lib/components/shelf/importFiles';

  let { data } = $props();
  let query = $state('');
  let over = $state(0);
  let importing = $state(false);
  let results = $state.raw<readonly ImportResult[]>([]);
  let expected = $state(0);
  let stopper: AbortController | null = null;
  let picker: HTMLInputElement;

  let order = $state<Order>('newest');
  const shown = $derived(
    sorted(
      data.pieces.filter((piece) => isFound(piece, query.trim())),
      order,
    ),
  );

  /** What was removed last, with a way back. */
  let problem = $state('');
  async function change(pieceId: string, changes: PieceChanges): Promise<string | null> {
    const answer = await changePiece(pieceId, changes);
    problem = answer ?? '';
    if (answer === null) await refresh();
    return answer;
  }

  /** Loading the shelf anew while a piece is being opened would call the opening off. */
  let leaving = false;
  beforeNavigate(() => {
    leaving = true;
  });
  const refresh = () => (leaving ? Promise.resolve() : invalidateAll());

  async function take(files: readonly File[]) {
    if (files.length === 0 || importing) return;
    importing = true;
    expected = files.length;
    results = [];
    stopper = new AbortController();
    await importFiles(files, stopper.signal, (result) => (results = [...results, result]));
    importing = false;
    await refresh();
  }

  async function takePart(file: File, part: number) {
    results = [...results, await importFile(file, { part })];
    await refresh();
  }

  /** The copy goes only when its file has been taken in elsewhere. */
  async function takeAsNewer(copy: ImportResult & { kind: 'imported' }, pieceId: string) {
    const result = await importAsNewer(copy.file, pieceId);
    results =
      result.kind === 'newer' ? results.map((one) => (one === copy ? result : one)) : [...results, result];
    if (result.kind === 'newer') await change(copy.piece.id, { removed: true });
  }

  /** While pages and plans are made, the shelf looks again until all are there. */
  const unready = $derived(data.pieces.filter((piece) => !piece.pageReady || !piece.plan).length);
  const LOOK_AGAIN_MS = 1500;
  const START_PLANNER_MS = 300;
  let timesLooked = 0;
  // Whoever opens one of these before the server has engraved it needs the engraver, which takes seconds to load.
  $effect(() => {
    if (data.pieces.some(({ pageReady }) => !pageReady)) startEngraver();
  });
  onMount(() => {
    // A piece is likely to be opened next; the shelf itself comes first.
    const starting = setTimeout(startPlanner, START_PLANNER_MS);
    const timer = setInterval(() => {
      if (unready > 0 && ++timesLooked < 400) void refresh();
    }, LOOK_AGAIN_MS);
    return () => {
      clearTimeout(starting);
      clearInterval(timer);
    };
  });

  function drop(event: DragEvent) {
    event.preventDefault();
    over = 0;
    void take([...(event.dataTransfer?.files ?? [])]);
  }
</script>

<svelte:head><title>Shelf · Oculon</title></svelte:head>

<svelte:window
  ondragover={(event) => event.preventDefault()}
  ondragenter={() => over++}
  ondragleave={() => over--}
  ondrop={drop}
/>

<header class="border-base-300 bg-base-100 border-b">
  <div class="mx-auto flex max-w-6xl items-center gap-3 px-6 py-3">
    <Rosette />
    <span class="font-serif text-xl font-semibold">Oculon</span>
    <span class="mx-2 opacity-40" aria-hidden="true">/</span>
    <h1 class="text-base">Shelf</h1>
    <a class="link ml-4 text-sm" href="/drills">Drill bench</a>
    <span class="ml-auto text-sm">{data.visitor.displayName} · {data.visitor.studioName}</span>
    <form method="POST" action="/sign-out"><button class="btn btn-ghost btn-sm">Sign out</button></form>
  </div>
</header>

<main class="mx-auto max-w-6xl px-6 py-8">
  <div class="mb-6 flex flex-wrap items-center gap-3">
    <label class="input w-72">
      <Search size={16} aria-hidden="true" />
      <input type="search" placeholder="Find a piece" aria-label="Find a piece" bind:value={query} />
    </label>
    <select class="select select-sm w-40" aria-label="Order" bind:value={order}>
      {#each Object.entries(ORDERS) as [id, { name }] (id)}<option value={id}>{name}</option>{/each}
    </select>
    <p class="text-sm" aria-live="polite">{shown.length} of {data.pieces.length}</p>
    <SaveMany pieces={shown} />
    <button class="btn btn-primary ml-auto" onclick={() => picker.click()} disabled={importing}>
      <FileUp size={18} aria-hidden="true" />
      {importing ? 'Importing …' : 'Import scores'}
    </button>
    <input
      bind:this={picker}
      type="file"
      multiple
      accept=".musicxml,.xml,.mxl,.mei,.abc,.json"
      class="hidden"
      aria-label="Score files"
      onchange={(event) => {
        void take([...(event.currentTarget.files ?? [])]);
        event.currentTarget.value = '';
      }}
    />
  </div>

  <ImportResults
    {results}
    {expected}
    busy={importing}
    cancel={() => stopper?.abort()}
    dismiss={() => (results = [])}
    importPart={(file, part) => void takePart(file, part)}
    remove={(id) => void change(id, { removed: true })}
    asNewer={(result, pieceId) => void takeAsNewer(result, pieceId)}
  />
  {#if problem}<p role="alert" class="text-error mb-4 text-sm">{problem}</p>{/if}
  {#if data.removed.length > 0}
    <details class="mb-4 text-sm" data-testid="removed">
      <summary class="cursor-pointer">{data.removed.length} removed</summary>
      <ul>
        {#each data.removed as { id, title } (id)}
          <li>
            {title}
            <button class="btn btn-xs ml-2" onclick={() => change(id, { removed: false })}
              >Bring back<span class="sr-only"> {title}</span></button
            >
          </li>
        {/each}
      </ul>
    </details>
  {/if}
  {#if unready > 0}
    <p class="mb-4 text-sm" role="status">
      Engraving and planning in the background: {unready}
      {unready === 1 ? 'piece' : 'pieces'} to go.
    </p>
  {/if}

  {#if data.pieces.length === 0}
    <div class="rounded-box border-base-300 border border-dashed p-12 text-center">
      <p class="font-serif text-2xl">The shelf is empty.</p>
      <p class="mt-2">
        Drop a MusicXML, MEI or ABC file anywhere on this page. It is kept as it is; a fingering is proposed
        at once.
      </p>
    </div>
  {:else if shown.length === 0}
    <p class="py-10 text-center">No title, composer, key or tag has “{query}”.</p>
  {:else}
    <ul class="grid grid-cols-1 gap-5 md:grid-cols-2">
      {#each shown as piece (piece.id)}
        <li><PieceCard {piece} change={(changes) => change(piece.id, changes)} /></li>
      {/each}
    </ul>
  {/if}
  <p class="mt-8 text-center text-sm">
    Drop .musicxml, .xml, .mxl, .mei or .abc files, or editions of Oculon, anywhere on this page.
  </p>
</main>

{#if over > 0}
  <div class="bg-base-200/90 pointer-events-none fixed inset-0 grid place-items-center">
    <p class="rounded-box border-primary bg-base-100 border-2 border-dashed px-12 py-10 font-serif text-2xl">
      Let go to import
    </p>
  </div>
{/if}
