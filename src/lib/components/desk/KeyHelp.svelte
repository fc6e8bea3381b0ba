<script lang="ts">
  import { READING } from '$core/copy/legend';
  import { GROUPS, type Group } from '$lib/client/desk/keys/shortcut';
  import { SHORTCUTS } from '$lib/client/desk/shortcuts';
  let { close }: { close: () => void } = $props();
  let dialog: HTMLDialogElement;
  $effect(() => dialog.showModal());

  /** Groups that have keys. */
  const IDS = (Object.keys(GROUPS) as Group[]).filter((id) =>
    SHORTCUTS.some(({ group, shown }) => group === id && shown),
  );
</script>

<dialog bind:this={dialog} class="modal" aria-labelledby="keys-heading" onclose={close}>
  <div class="modal-box max-h-[94vh] max-w-6xl p-4">
    <div class="flex items-baseline">
      <h2 id="keys-heading" class="font-serif text-2xl font-semibold">Keys</h2>
      <button class="btn btn-sm ml-auto" onclick={() => dialog.close()}>Close</button>
    </div>
    <div class="mt-2 gap-8 text-xs md:columns-2 lg:columns-3">
      {#each IDS as group (group)}
        <section aria-label={GROUPS[group]} class="mb-3 break-inside-avoid-column">
          <h3 class="mb-1 font-semibold">{GROUPS[group]}</h3>
          <dl class="grid grid-cols-[6.2rem_1fr] gap-x-2 gap-y-0.5">
            {#each SHORTCUTS.filter((row) => row.group === group && row.shown) as row (row.shown + row.does)}
              <dt><kbd class="kbd kbd-xs">{row.shown}</kbd></dt>
              <dd>{row.does}</dd>
            {/each}
            {#if group === 'page'}
              <dt><kbd class="kbd kbd-xs">?</kbd></dt>
              <dd>this list</dd>
            {/if}
          </dl>
        </section>
      {/each}
      <section aria-label="How the fewest marks are read" class="break-inside-avoid-column">
        <h3 class="mb-1 font-semibold">How the fewest marks are read</h3>
        <p>{READING}</p>
      </section>
    </div>
  </div>
</dialog>
