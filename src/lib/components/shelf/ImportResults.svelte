<script lang="ts">
  import type { ImportResult } from './importFiles';
  let { results, dismiss }: { results: readonly ImportResult[]; dismiss: () => void } = $props();
</script>

{#if results.length > 0}
  <section
    aria-label="Import"
    aria-live="polite"
    class="bg-base-100 border-base-300 rounded-box mb-6 border p-4 text-sm"
  >
    <ul class="flex flex-col gap-2">
      {#each results as result, k (k)}
        <li class="flex gap-3">
          {#if result.kind === 'imported'}
            <span class="text-success font-medium">Imported</span>
            <span>{result.fileName}</span>
            <a class="link" href="/desk/{result.pieceId}">open on the desk</a>
          {:else}
            <span class="text-error font-medium">Refused</span>
            <span><span class="font-medium">{result.fileName}.</span> {result.message}</span>
          {/if}
        </li>
      {/each}
    </ul>
    <button class="btn btn-ghost btn-sm mt-2" onclick={dismiss}>Close</button>
  </section>
{/if}
