<script lang="ts">
  import { READING } from '$core/copy/legend';
  import { SHORTCUTS } from '$lib/client/desk/shortcuts';
  let { close }: { close: () => void } = $props();
  let dialog: HTMLDialogElement;
  $effect(() => dialog.showModal());
</script>

<dialog bind:this={dialog} class="modal" aria-labelledby="keys-heading" onclose={close}>
  <div class="modal-box">
    <h2 id="keys-heading" class="mb-3 font-serif text-2xl font-semibold">Keys</h2>
    <dl class="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1.5 text-sm">
      {#each SHORTCUTS.filter((row) => !row.corrects) as row (row.shown + row.does)}
        <dt><kbd class="kbd kbd-sm">{row.shown}</kbd></dt>
        <dd>{row.does}</dd>
      {/each}
      <dt><kbd class="kbd kbd-sm">?</kbd></dt>
      <dd>this list</dd>
    </dl>
    <h3 class="mt-4 mb-2 font-semibold">Corrections of the selected note</h3>
    <dl class="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1.5 text-sm">
      {#each SHORTCUTS.filter((row) => row.corrects) as row (row.shown + row.does)}
        <dt><kbd class="kbd kbd-sm">{row.shown}</kbd></dt>
        <dd>{row.does}</dd>
      {/each}
    </dl>
    <h3 class="mt-4 mb-2 font-semibold">How the fewest marks are read</h3>
    <p class="text-sm">{READING}</p>
    <div class="modal-action"><button class="btn btn-sm" onclick={() => dialog.close()}>Close</button></div>
  </div>
</dialog>
