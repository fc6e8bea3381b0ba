<!-- Copies that somebody has: as they were, and what has changed since. -->
<script lang="ts">
  import { markText } from '$core/messages/marks';
  import type { CopyDifference } from '$core/copy/copyMark';
  import type { Copy } from '$lib/client/copy/copy.svelte';

  let { copy }: { copy: Copy } = $props();

  let forWhom = $state('');
  const date = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
  const said = (kind: CopyDifference['kind'], text: string | null) =>
    text === null ? 'nothing' : markText({ kind, text });
  const MOST = 40;
</script>

<section aria-labelledby="copy-handed-out">
  <h2 id="copy-handed-out" class="mb-2 font-semibold">Handed out</h2>
  <form
    class="flex items-end gap-2"
    onsubmit={(event) => {
      event.preventDefault();
      void copy.handOut(forWhom).then(() => (forWhom = ''));
    }}
  >
    <label class="flex min-w-0 flex-1 flex-col gap-1 text-xs">
      For whom
      <input class="input input-sm w-full" maxlength="80" bind:value={forWhom} />
    </label>
    <button class="btn btn-sm" disabled={copy.making !== '' || copy.pages.length === 0}>Hand out</button>
  </form>
  {#if copy.handedOut.length === 0}
    <p class="mt-2 text-xs">
      A copy that is handed out is kept as it is: it can be printed again, and compared with what the edition
      has become.
    </p>
  {/if}
  <ul class="mt-2 flex flex-col gap-2">
    {#each copy.handedOut as one (one.id)}
      <li class="text-xs">
        <div>
          {date.format(new Date(one.createdAt))}{one.forWhom ? `, for ${one.forWhom}` : ''}, change {one.seq}
        </div>
        <div class="flex gap-3">
          <button class="link" onclick={() => copy.again(one)}>as it was</button>
          <button class="link" aria-pressed={copy.compared === one} onclick={() => copy.compare(one)}
            >{copy.compared === one ? 'do not compare' : 'what has changed'}</button
          >
        </div>
        {#if copy.compared === one}
          <div data-testid="differences" class="border-base-300 mt-1 border-l-2 pl-2">
            {#if copy.differences.length === 0}
              <p>Nothing: it would be printed the same.</p>
            {:else}
              <p class="mb-0.5">{copy.differences.length} marks, framed on the page:</p>
              <ul>
                {#each copy.differences.slice(0, MOST) as difference, k (k)}
                  <li>
                    {difference.bar === null ? 'a note that is gone' : `bar ${difference.bar}`}: {said(
                      difference.kind,
                      difference.was,
                    )} → {said(difference.kind, difference.is)}
                  </li>
                {/each}
              </ul>
            {/if}
          </div>
        {/if}
      </li>
    {/each}
  </ul>
</section>
