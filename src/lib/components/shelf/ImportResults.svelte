<script lang="ts">
  import type { ImportResult } from './importFiles';

  interface Props {
    results: readonly ImportResult[];
    /** Files in all, those that are still under way included. */
    expected: number;
    busy: boolean;
    cancel: () => void;
    dismiss: () => void;
    importPart: (file: File, part: number) => void;
    /** Takes a second copy away again. */
    remove: (pieceId: string) => void;
    /** Takes the file as the newer one of another piece, and the copy that it made away. */
    asNewer: (result: Extract<ImportResult, { kind: 'imported' }>, pieceId: string) => void;
  }
  let { results, expected, busy, cancel, dismiss, importPart, remove, asNewer }: Props = $props();

  const otherParts = (result: Extract<ImportResult, { kind: 'imported' }>) =>
    result.piece.parts.filter((part) => part.index !== result.piece.partIndex && part.notes > 0);
  const partName = (result: Extract<ImportResult, { kind: 'imported' }>) =>
    result.piece.parts.find((part) => part.index === result.piece.partIndex)?.name ?? '';
</script>

{#if busy || results.length > 0}
  <section aria-label="Import" class="bg-base-100 border-base-300 rounded-box mb-6 border p-4 text-sm">
    {#if busy}
      <div class="mb-3 flex items-center gap-3">
        <progress class="progress progress-primary w-64" value={results.length} max={expected}></progress>
        <span role="status">{results.length} of {expected}</span>
        <button class="btn btn-sm ml-auto" onclick={cancel}>Cancel</button>
      </div>
    {/if}
    <ul class="flex flex-col gap-2" aria-live="polite">
      {#each results as result, k (k)}
        <li class="flex gap-3">
          {#if result.kind === 'imported'}
            <span class="text-success font-medium">Imported</span>
            <span>
              {result.file.name}{#if result.piece.parts.length > 1}, part “{partName(result)}”{/if}
              <a class="link ml-2" href="/desk/{result.piece.id}">open on the desk</a>
              {#if result.piece.same.length > 0}
                <span class="mt-1 block" data-testid="same-file">
                  The same file is here already:
                  {#each result.piece.same as one (one.id)}
                    <a class="link mr-2" href="/desk/{one.id}">open “{one.title}”</a>
                  {/each}
                  <button class="btn btn-xs" onclick={() => remove(result.piece.id)}
                    >Remove this second copy</button
                  >
                </span>
              {/if}
              {#if result.piece.sameTitle.length > 0}
                <span class="mt-1 block" data-testid="same-title">
                  Of this title there is another file here:
                  {#each result.piece.sameTitle as one (one.id)}
                    <a class="link mr-2" href="/desk/{one.id}">open “{one.title}”</a>
                    <button class="btn btn-xs mr-2" onclick={() => asNewer(result, one.id)}
                      >This is its newer file: keep its fingering</button
                    >
                  {/each}
                </span>
              {/if}
              {#if otherParts(result).length > 0}
                <span class="mt-1 block">
                  Also in the score:
                  {#each otherParts(result) as part (part.index)}
                    <button class="btn btn-xs mr-1" onclick={() => importPart(result.file, part.index)}>
                      {part.name || `part ${part.index + 1}`}, {part.notes} notes
                    </button>
                  {/each}
                </span>
              {/if}
            </span>
          {:else if result.kind === 'newer'}
            <span class="text-success font-medium">Newer file</span>
            <span>
              {result.file.name}. {result.message}
              <a class="link ml-2" href="/desk/{result.pieceId}">open on the desk</a>
            </span>
          {:else}
            <span class="text-error font-medium">Refused</span>
            <span><span class="font-medium">{result.file.name}.</span> {result.message}</span>
          {/if}
        </li>
      {/each}
    </ul>
    {#if !busy}<button class="btn btn-ghost btn-sm mt-2" onclick={dismiss}>Close</button>{/if}
  </section>
{/if}
