<!-- What the teacher says of a bar: kept with the edition, printed under the music. -->
<script lang="ts">
  import type { Copy } from '$lib/client/copy/copy.svelte';
  import { remarksOf } from '$core/fingering/edition/registers';

  let { copy }: { copy: Copy } = $props();

  const { desk } = $derived(copy);
  const remarks = $derived(remarksOf(desk.session.registers));
  const measures = $derived(desk.planning.score?.measures ?? []);
  const listed = $derived(
    measures.flatMap(({ uid, number }) => {
      const words = remarks.get(uid);
      return words === undefined ? [] : [{ uid, number, words }];
    }),
  );
  let bar = $state('');
  let words = $state('');
  let problem = $state('');

  function add() {
    const measure = measures.find(({ number }) => number === bar.trim());
    problem = measure
      ? ''
      : `There is no bar ${bar || '…'}; the piece ends with bar ${measures.at(-1)?.number}.`;
    if (!measure || words.trim() === '') return;
    desk.set(measure.uid, 'remark', words.trim().slice(0, 400));
    bar = '';
    words = '';
  }
</script>

<section aria-labelledby="copy-remarks">
  <h2 id="copy-remarks" class="mb-2 font-semibold">Remarks</h2>
  {#if listed.length > 0}
    <ul class="mb-2 flex flex-col gap-1">
      {#each listed as one (one.uid)}
        <li class="flex items-baseline gap-2">
          <span class="shrink-0 text-xs">bar {one.number}</span>
          <span class="min-w-0 flex-1">{one.words}</span>
          <button
            class="link text-xs"
            aria-label="Remove the remark to bar {one.number}"
            onclick={() => desk.set(one.uid, 'remark', null)}>remove</button
          >
        </li>
      {/each}
    </ul>
  {/if}
  <form
    class="flex items-end gap-2"
    onsubmit={(event) => {
      event.preventDefault();
      add();
    }}
  >
    <label class="flex w-14 flex-col gap-1 text-xs">
      Bar
      <input class="input input-sm w-full" bind:value={bar} />
    </label>
    <label class="flex min-w-0 flex-1 flex-col gap-1 text-xs">
      Remark
      <input class="input input-sm w-full" maxlength="400" bind:value={words} />
    </label>
    <button class="btn btn-sm">Add</button>
  </form>
  {#if problem}<p role="alert" class="text-warning mt-1 text-xs">{problem}</p>{/if}
</section>
