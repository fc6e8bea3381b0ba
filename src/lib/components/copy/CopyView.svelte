<!-- The student's copy, page by page as it will be printed, with what to include beside it. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import Printer from '@lucide/svelte/icons/printer';
  import PageHeader from '$lib/components/PageHeader.svelte';
  import SaveState from '$lib/components/desk/SaveState.svelte';
  import { importErrorText } from '$core/messages/en';
  import { Copy } from '$lib/client/copy/copy.svelte';
  import type { DeskOpening } from '$lib/client/desk/stored';
  import FilesPanel from './FilesPanel.svelte';
  import HandedOutPanel from './HandedOutPanel.svelte';
  import IncludePanel from './IncludePanel.svelte';
  import MarksPanel from './MarksPanel.svelte';
  import RemarksPanel from './RemarksPanel.svelte';

  let { opening }: { opening: DeskOpening } = $props();

  // svelte-ignore state_referenced_locally
  const copy = new Copy(opening);
  const { desk } = copy;
  onMount(() => {
    void copy.open();
    return () => copy.close();
  });

  // The engraving belongs to a paper and to the score as it is corrected, not to the marks.
  $effect(() => {
    const { paper, orientation, staff } = copy.options;
    if (desk.planning.score && paper && orientation && staff) void copy.engrave();
  });
  const wantsScript = $derived(copy.options.include.includes('hotSpots'));
  $effect(() => {
    if (wantsScript && desk.planning.plan && !desk.planning.script) void desk.planning.askScripts();
  });

  function onkeydown(event: KeyboardEvent) {
    const typing = event.target instanceof Element && event.target.matches('input, textarea, select');
    const command = event.ctrlKey || event.metaKey;
    if (command && event.key === 'p') void copy.save('pdf');
    else if (typing) return;
    else if (command && event.key === 'z') desk.undo();
    else if (event.key === 'Escape') void goto(`/desk/${opening.piece.id}`);
    else return;
    event.preventDefault();
  }
</script>

<svelte:window {onkeydown} />

<div class="flex min-h-screen flex-col lg:h-screen">
  <PageHeader title="Copy of {opening.piece.title}">
    {#snippet state()}<SaveState state={desk.session.saver.state} />{/snippet}
    {#snippet actions()}
      <button
        class="btn btn-ghost btn-sm"
        onclick={() => desk.undo()}
        disabled={!desk.session.canUndo}
        aria-label="Undo"
        title="Undo (Ctrl z)"
      >
        <Undo2 size={18} aria-hidden="true" />
      </button>
      <a class="btn btn-sm btn-outline" href="/desk/{opening.piece.id}" title="To the desk (Esc)"
        >To the desk</a
      >
      <button
        class="btn btn-sm btn-primary"
        onclick={() => copy.save('pdf')}
        disabled={copy.making !== '' || copy.pages.length === 0}
        title="Save as PDF (Ctrl p)"
      >
        <Printer size={16} aria-hidden="true" />
        {copy.making || 'Save PDF'}
      </button>
    {/snippet}
  </PageHeader>

  <div class="flex min-h-0 flex-1 flex-col lg:flex-row">
    <!-- What scrolls must be within reach of the keys. -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <main
      tabindex="0"
      class="min-h-0 min-w-0 flex-1 overflow-y-auto p-4 max-lg:h-[70vh]"
      aria-busy={copy.pages.length === 0}
      data-testid="pages"
    >
      {#if desk.refusal}
        <p role="alert" class="rounded-box border-error border p-6">{importErrorText(desk.refusal)}</p>
      {:else if copy.pages.length === 0}
        <p role="status" class="p-12 text-center font-serif text-xl">
          Setting {opening.piece.title} for paper …
        </p>
      {:else}
        <ol class="mx-auto flex max-w-210 flex-col gap-5">
          {#each copy.pages as page, k (k)}
            <li>
              <div
                class="page shadow-md"
                style:aspect-ratio="{page.widthMm} / {page.heightMm}"
                role="img"
                aria-label="Page {k + 1} of {copy.pages.length}"
              >
                <!-- Made here from drawing that the page reader let through, and from escaped words. -->
                <!-- eslint-disable-next-line svelte/no-at-html-tags -->
                {@html page.svg}
              </div>
            </li>
          {/each}
        </ol>
      {/if}
    </main>
    <aside
      class="border-base-300 bg-base-100 flex shrink-0 flex-col gap-6 p-4 text-sm max-lg:border-t lg:w-80 lg:overflow-y-auto lg:border-l"
      aria-label="What is printed"
    >
      {#if copy.notice || desk.notice}
        <p role="alert" class="text-warning">{copy.notice || desk.notice}</p>
      {/if}
      <MarksPanel {copy} />
      <IncludePanel {copy} />
      <RemarksPanel {copy} />
      <HandedOutPanel {copy} />
      <FilesPanel {copy} />
    </aside>
  </div>
</div>

<style>
  .page {
    background: #fff;
  }
  .page :global(svg) {
    display: block;
    width: 100%;
    height: 100%;
  }
</style>
