<!-- The engraved page with the marks over it. Drawing reads the same placed list that the tests read. -->
<script lang="ts">
  import type { Sheet } from '$core/engraving/sheet';
  import { untrack } from 'svelte';
  import SystemDrawing from './SystemDrawing.svelte';
  import { type NoteSets, SystemSlot } from './systemSlot.svelte';

  interface Props extends NoteSets {
    sheet: Sheet;
    selectedUid: string | null;
    describe: (uid: string) => string;
    select: (uid: string) => void;
    /** Marks as far as a note. */
    extend?: (uid: string) => void;
  }
  let {
    sheet,
    selectedUid,
    conflicts,
    corrected,
    noticed,
    ranged,
    describe,
    select,
    extend = select,
  }: Props = $props();

  let slots = $state.raw<readonly SystemSlot[]>([]);
  let width = $state(0);
  let space = $state(0);
  let scale = $state(1);
  let glyphs = $state('');
  let systemOf = new Map<string, number>();
  let page: Sheet['engraved'] | null = null;

  $effect.pre(() => {
    const { systems, engraved } = sheet;
    const sets = { conflicts, corrected, noticed, ranged };
    untrack(() => {
      width = engraved.width;
      space = engraved.staffSpace;
      scale = sheet.scale;
      glyphs = engraved.glyphs;
      if (page !== engraved) systemOf = new Map(engraved.notes.map(({ uid, system }) => [uid, system]));
      page = engraved;
      systems.forEach((system, k) => slots[k]?.fill(system, sets));
      if (slots.length === systems.length) return;
      slots = systems.map((system, k) => {
        const slot = slots[k] ?? new SystemSlot(system);
        slot.fill(system, sets);
        return slot;
      });
    });
  });

  // After the slots are there: the note may have come with them.
  $effect.pre(() => {
    const uid = selectedUid;
    const at = uid === null ? -1 : (systemOf.get(uid) ?? -1);
    slots.forEach((slot, k) => {
      const own = k === at ? uid : null;
      untrack(() => (slot.selectedUid = own));
    });
  });
</script>

<div role="group" aria-label="Score with fingering" style:color="var(--paper-ink)" data-testid="score">
  <svg width="0" height="0" class="absolute" aria-hidden="true">
    <!-- The page reader lets only listed drawing elements through. -->
    <!-- eslint-disable-next-line svelte/no-at-html-tags -->
    {@html glyphs}
  </svg>
  {#each slots as slot, k (k)}
    <SystemDrawing {slot} {width} {space} {scale} {describe} {select} {extend} />
  {/each}
</div>
