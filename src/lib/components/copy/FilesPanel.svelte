<!-- The same fingering for other programs, with the marks that are chosen. -->
<script lang="ts">
  import { type Format, FORMAT_IDS, FORMATS, PICTURES } from '$core/copy/formats';
  import type { Copy } from '$lib/client/copy/copy.svelte';

  let { copy }: { copy: Copy } = $props();

  const others = FORMAT_IDS.filter((id) => id !== 'pdf');
  let format = $state<Format>('musicxml');
  let bars = $state('');
  const isPicture = $derived(PICTURES.includes(format));
</script>

<section aria-labelledby="copy-files">
  <h2 id="copy-files" class="mb-2 font-semibold">Other files</h2>
  <form
    class="flex flex-col gap-2"
    onsubmit={(event) => {
      event.preventDefault();
      void copy.save(format, bars);
    }}
  >
    <select class="select select-sm w-full" aria-label="Kind of file" bind:value={format}>
      {#each others as id (id)}<option value={id}>{FORMATS[id].words}</option>{/each}
    </select>
    <div class="flex items-end gap-2">
      {#if isPicture}
        <label class="flex min-w-0 flex-1 flex-col gap-1 text-xs">
          Bars
          <input class="input input-sm w-full" placeholder="all, or 3-6" bind:value={bars} />
        </label>
      {/if}
      <button class="btn btn-sm ml-auto" disabled={copy.making !== '' || copy.pages.length === 0}>Save</button
      >
    </div>
  </form>
  <p class="mt-1 text-xs">
    <a class="link" href={copy.editionAddress} download={copy.editionName}
      >The edition in Oculon’s open format</a
    >
    holds the score and every decision.
  </p>
</section>
