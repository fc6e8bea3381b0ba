<!-- Every piece that the shelf shows, as one zip of copies or of files for other programs. -->
<script lang="ts">
  import FolderDown from '@lucide/svelte/icons/folder-down';
  import { type Format, FORMAT_IDS, FORMATS, PICTURES } from '$core/copy/formats';
  import { PLAIN_COPY } from '$core/copy/paper';
  import { DENSITIES, type Density } from '$core/marks/style';
  import { DENSITY_NAMES } from '$lib/components/copy/words';
  import { save } from '$lib/client/copy/saveFile';
  import { type ManyPiece, type Progress, zipOfMany } from '$lib/client/copy/saveMany';

  let { pieces }: { pieces: readonly ManyPiece[] } = $props();

  const formats = FORMAT_IDS.filter((id) => !PICTURES.includes(id));
  let open = $state(false);
  let format = $state<Format>('pdf');
  let density = $state<Density | 'own'>('own');
  let progress = $state.raw<Progress | null>(null);
  let told = $state('');
  let stopper: AbortController | null = null;
  const count = $derived(`${pieces.length} ${pieces.length === 1 ? 'piece' : 'pieces'}`);

  async function make() {
    stopper = new AbortController();
    progress = { done: 0, failed: [] };
    told = '';
    const options = { ...PLAIN_COPY, density: density === 'own' ? null : density };
    const zip = await zipOfMany(pieces, { format, options }, stopper.signal, (now) => (progress = now));
    const failed = progress?.failed ?? [];
    if (zip) save(new Blob([new Uint8Array(zip)], { type: 'application/zip' }), 'oculon-copies.zip');
    told = stopper.signal.aborted
      ? 'Cancelled; nothing was saved.'
      : failed.length === 0
        ? `${count} saved.`
        : `Could not be made, try again: ${failed.join(', ')}.`;
    progress = null;
  }
</script>

<button
  class="btn btn-ghost btn-sm"
  aria-expanded={open}
  onclick={() => (open = !open)}
  disabled={pieces.length === 0}
>
  <FolderDown size={16} aria-hidden="true" /> Save these
</button>
{#if open}
  <form
    class="border-base-300 bg-base-100 rounded-box order-last flex w-full flex-wrap items-end gap-3 border p-4 text-sm"
    onsubmit={(event) => {
      event.preventDefault();
      void make();
    }}
  >
    <label class="flex flex-col gap-1 text-xs">
      Of each piece
      <select class="select select-sm w-64" bind:value={format}>
        {#each formats as id (id)}<option value={id}>{FORMATS[id].words}</option>{/each}
      </select>
    </label>
    <label class="flex flex-col gap-1 text-xs">
      Marks
      <select class="select select-sm w-44" bind:value={density}>
        <option value="own">as on each desk</option>
        {#each DENSITIES as one (one)}<option value={one}>{DENSITY_NAMES[one]}</option>{/each}
      </select>
    </label>
    {#if progress}
      <progress class="progress w-40" value={progress.done} max={pieces.length} aria-label="Made so far"
      ></progress>
      <span>{progress.done} of {pieces.length}</span>
      <button type="button" class="btn btn-sm" onclick={() => stopper?.abort()}>Cancel</button>
    {:else}
      <button class="btn btn-sm btn-primary">Save {count} as one zip</button>
    {/if}
    {#if told}<span role="status">{told}</span>{/if}
  </form>
{/if}
