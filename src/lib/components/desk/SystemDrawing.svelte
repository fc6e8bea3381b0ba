<!-- One system with its marks. It is drawn again only when something of its own has changed, and painted where it is seen. -->
<script lang="ts">
  import { tick } from 'svelte';
  import { markSvg } from '$core/engraving/markSvg';
  import { SCREEN } from './screenDrawing';
  import type { SystemSlot } from './systemSlot.svelte';

  interface Props {
    slot: SystemSlot;
    width: number;
    space: number;
    scale: number;
    describe: (uid: string) => string;
    select: (uid: string) => void;
    extend: (uid: string) => void;
  }
  let { slot, width, space, scale, describe, select, extend }: Props = $props();

  const system = $derived(slot.system);
  /** One drawing for all: a browser reads it faster than it makes hundreds of elements one by one. */
  const marks = $derived(
    system.layout.placed
      .map((mark) => markSvg(mark, { ...SCREEN, space, scale }, slot.conflicts.has(mark.uid)))
      .join(''),
  );
  const selectedUid = $derived(slot.selectedUid);
  const height = $derived(system.bottom - system.top);
  const drawing = $derived(system.layout.drawing);
  const selected = $derived(
    selectedUid === null ? null : (system.notes.find((note) => note.uid === selectedUid) ?? null),
  );
  /** "file 3 → plan 1", by note. */
  const departures = $derived(
    new Map(
      system.layout.placed
        .filter(({ departs }) => departs !== null)
        .map(({ uid, departs, text, state }) => [
          uid,
          `file ${departs} → ${state === 'ink' ? 'ink' : 'plan'} ${text}`,
        ]),
    ),
  );
  let highlight = $state<SVGRectElement | null>(null);
  let notes = $state<SVGSVGElement | null>(null);

  $effect(() => {
    if (!selected) return;
    const { uid } = selected;
    let own: SVGElement | null = null;
    void tick().then(() => {
      highlight?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
      own = notes?.querySelector<SVGElement>(`[data-note="${uid}"]`) ?? null;
      // Not in the markup: while it has the focus, losing its place in the order of keys lays the whole page out.
      own?.setAttribute('tabindex', '0');
      focus(own);
    });
    return () => void tick().then(() => tick().then(() => own?.setAttribute('tabindex', '-1')));
  });

  /** The focus goes with the selection, but for whoever is typing. */
  function focus(note: SVGElement | null): void {
    if (!document.activeElement?.matches('input, textarea, select')) note?.focus({ preventScroll: true });
  }
</script>

<div class="system" style:aspect-ratio="{width} / {height}">
  <svg
    bind:this={notes}
    viewBox="0 {system.top} {width} {height}"
    class="block size-full"
    data-system={system.index}
  >
    {#if selected}
      <rect
        bind:this={highlight}
        x={selected.x - 0.35 * space}
        y={drawing.staffTop - 3 * space}
        width={selected.width + 0.7 * space}
        height={drawing.staffBottom - drawing.staffTop + 6 * space}
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
    {#each system.notes as note (note.uid)}
      {#if slot.ranged.has(note.uid)}
        <rect
          data-ranged={note.uid}
          x={note.x - 0.5 * space}
          y={drawing.staffTop - 0.6 * space}
          width={note.width + space}
          height={drawing.staffBottom - drawing.staffTop + 1.2 * space}
          fill="var(--selection)"
          opacity="0.16"
        />
      {/if}
    {/each}
    <g class="engraving" aria-hidden="true">
      <!-- The page reader lets only listed drawing elements through. -->
      <!-- eslint-disable-next-line svelte/no-at-html-tags -->
      {@html drawing.svg}
      {#each drawing.tempos as words, at (at)}
        <!-- eslint-disable-next-line svelte/no-at-html-tags -->
        {@html words.svg}
      {/each}
    </g>
    <g aria-hidden="true" data-testid="marks">
      <!-- eslint-disable-next-line svelte/no-at-html-tags -->
      {@html marks}
    </g>
    {#each system.notes as note (note.uid)}
      {#if slot.corrected.has(note.uid)}
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
      {#if slot.noticed.has(note.uid)}
        <text
          data-noticed={note.uid}
          x={note.x}
          y={drawing.staffTop - 4.2 * space}
          font-size={2 * space}
          font-weight="700"
          fill="var(--selection)">!</text
        >
      {/if}
      <rect
        x={note.x - 0.9 * space}
        y={note.y - 0.15 * space}
        width={note.width + 1.1 * space}
        height={note.height + 0.3 * space}
        fill="transparent"
        class="cursor-pointer"
        role="button"
        tabindex="-1"
        aria-label={describe(note.uid)}
        aria-pressed={note.uid === selectedUid}
        data-note={note.uid}
        onclick={(event) => (event.shiftKey ? extend : select)(note.uid)}
        onkeydown={(event) => event.key === ' ' && select(note.uid)}
      >
        {#if departures.has(note.uid)}<title>{departures.get(note.uid)}</title>{/if}
      </rect>
    {/each}
  </svg>
</div>

<style>
  /* Systems out of sight are neither laid out nor painted; their height is known. */
  .system {
    content-visibility: auto;
    width: 100%;
  }
</style>
