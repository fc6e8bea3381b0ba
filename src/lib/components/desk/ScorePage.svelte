<!-- The engraved page with the marks over it. Drawing reads the same placed list that the tests read. -->
<script lang="ts">
  import type { EngravedPage, NoteBox } from '$core/engraving/page';
  import type { PlacedMark } from '$core/engraving/placeMarks';
  import { tick } from 'svelte';
  import MarkShape from './MarkShape.svelte';

  interface Props {
    page: EngravedPage;
    marks: readonly PlacedMark[];
    selectedUid: string | null;
    conflicts: ReadonlySet<string>;
    /** Notes that carry a correction, and first notes of bars that something was noticed about. */
    corrected: ReadonlySet<string>;
    noticed: ReadonlySet<string>;
    describe: (uid: string) => string;
    select: (uid: string) => void;
  }
  let { page, marks, selectedUid, conflicts, corrected, noticed, describe, select }: Props = $props();

  const space = $derived(page.staffSpace);
  const selected = $derived(page.notes.find((note) => note.uid === selectedUid) ?? null);
  const system = $derived(selected ? page.systems[selected.system] : null);
  let highlight = $state<SVGRectElement | null>(null);

  $effect(() => {
    if (selected) void tick().then(() => highlight?.scrollIntoView({ block: 'nearest', inline: 'nearest' }));
  });

  const hitBox = (note: NoteBox) => ({
    x: note.x - 0.9 * space,
    y: note.y - 0.15 * space,
    width: note.width + 1.1 * space,
    height: note.height + 0.3 * space,
  });
</script>

<svg
  viewBox="0 0 {page.width} {page.height}"
  class="block w-full"
  role="group"
  aria-label="Score with fingering"
  style:color="var(--paper-ink)"
  data-testid="score"
>
  {#if selected && system}
    <rect
      bind:this={highlight}
      x={selected.x - 0.35 * space}
      y={system.staffTop - 3 * space}
      width={selected.width + 0.7 * space}
      height={system.staffBottom - system.staffTop + 6 * space}
      rx={0.4 * space}
      fill="var(--selection)"
      opacity="0.09"
    />
    <rect
      x={selected.x - 0.3 * space}
      y={selected.y - 0.3 * space}
      width={selected.width + 0.6 * space}
      height={selected.height + 0.6 * space}
      rx={0.45 * space}
      fill="var(--selection)"
      fill-opacity="0.18"
      stroke="var(--selection)"
      stroke-width={0.14 * space}
    />
  {/if}
  <g class="engraving" aria-hidden="true">
    <!-- The page reader lets only listed drawing elements through. -->
    <!-- eslint-disable-next-line svelte/no-at-html-tags -->
    {@html page.glyphs}
    {#each page.systems as { svg, tempos }, k (k)}
      <!-- eslint-disable-next-line svelte/no-at-html-tags -->
      {@html svg}
      {#each tempos as words, at (at)}
        <!-- eslint-disable-next-line svelte/no-at-html-tags -->
        {@html words.svg}
      {/each}
    {/each}
  </g>
  <g aria-hidden="true" data-testid="marks">
    {#each marks as mark (mark.id)}
      <MarkShape {mark} {space} conflict={conflicts.has(mark.uid)} />
    {/each}
  </g>
  {#each page.notes as note (note.uid)}
    {#if corrected.has(note.uid)}
      <rect
        data-corrected={note.uid}
        x={note.x - 0.22 * space}
        y={note.y - 0.22 * space}
        width={note.width + 0.44 * space}
        height={note.height + 0.44 * space}
        rx={0.2 * space}
        fill="none"
        stroke="currentColor"
        stroke-width={0.09 * space}
        stroke-dasharray="{0.28 * space} {0.2 * space}"
      />
    {/if}
    {#if noticed.has(note.uid)}
      <text
        data-noticed={note.uid}
        x={note.x}
        y={page.systems[note.system]!.staffTop - 4.2 * space}
        font-size={2 * space}
        font-weight="700"
        fill="var(--selection)">!</text
      >
    {/if}
    <rect
      {...hitBox(note)}
      fill="transparent"
      class="cursor-pointer"
      role="button"
      tabindex={note.uid === selectedUid ? 0 : -1}
      aria-label={describe(note.uid)}
      aria-pressed={note.uid === selectedUid}
      data-note={note.uid}
      onclick={() => select(note.uid)}
      onkeydown={(event) => event.key === ' ' && select(note.uid)}
    />
  {/each}
</svg>
