<!-- The engraved page with the marks over it. Drawing reads the same placed list that the tests read. -->
<script lang="ts">
  import type { Sheet } from '$core/engraving/sheet';
  import SystemDrawing from './SystemDrawing.svelte';

  interface Props {
    sheet: Sheet;
    selectedUid: string | null;
    conflicts: ReadonlySet<string>;
    /** Notes that carry a correction, and first notes of bars that something was noticed about. */
    corrected: ReadonlySet<string>;
    noticed: ReadonlySet<string>;
    describe: (uid: string) => string;
    select: (uid: string) => void;
  }
  let { sheet, selectedUid, conflicts, corrected, noticed, describe, select }: Props = $props();

  const page = $derived(sheet.page);
  const selectedSystem = $derived(page.notes.find((note) => note.uid === selectedUid)?.system ?? -1);
</script>

<div role="group" aria-label="Score with fingering" style:color="var(--paper-ink)" data-testid="score">
  <svg width="0" height="0" class="absolute" aria-hidden="true">
    <!-- The page reader lets only listed drawing elements through. -->
    <!-- eslint-disable-next-line svelte/no-at-html-tags -->
    {@html page.glyphs}
  </svg>
  {#each sheet.systems as system (system.index)}
    <SystemDrawing
      {system}
      width={page.width}
      space={page.staffSpace}
      scale={sheet.scale}
      selectedUid={system.index === selectedSystem ? selectedUid : null}
      {conflicts}
      {corrected}
      {noticed}
      {describe}
      {select}
    />
  {/each}
</div>
