<!-- What the teacher says of the bar: read beside the note, written with a key; the copy prints it. -->
<script lang="ts">
  import type { Measure } from '$core/score/model';
  import type { Desk } from '$lib/client/desk/desk.svelte';

  interface Props {
    desk: Desk;
    measure: Measure;
  }
  let { desk, measure }: Props = $props();

  const MOST_CHARACTERS = 400;
  const stands = $derived(desk.session.remarks.get(measure.uid) ?? '');
  let field = $state<HTMLTextAreaElement | null>(null);
  $effect(() => field?.focus());

  function close() {
    desk.remarking = false;
    document.querySelector<SVGElement>(`[data-note="${desk.selection.uid}"]`)?.focus();
  }

  function keep() {
    const words = (field?.value ?? '').trim();
    if (words !== stands) desk.set(measure.uid, 'remark', words === '' ? null : words);
    close();
  }

  /** Whoever goes to another note has meant what is written: it belongs to the bar that they leave. */
  function onblur({ currentTarget, relatedTarget }: FocusEvent & { currentTarget: HTMLTextAreaElement }) {
    const isInside = relatedTarget instanceof Node && currentTarget.form?.contains(relatedTarget);
    if (desk.remarking && !isInside) keep();
  }

  function onkeydown(event: KeyboardEvent) {
    if (event.key === 'Enter' && !event.shiftKey) keep();
    else if (event.key === 'Escape') close();
    else return;
    event.preventDefault();
  }
</script>

{#if desk.remarking}
  <form
    class="rounded-box border-base-content/40 border p-3 text-sm"
    data-testid="remark"
    onsubmit={(event) => {
      event.preventDefault();
      keep();
    }}
  >
    <label class="flex flex-col gap-1">
      Remark to bar {measure.number}
      <textarea
        bind:this={field}
        class="textarea textarea-sm w-full"
        rows="2"
        maxlength={MOST_CHARACTERS}
        value={stands}
        {onkeydown}
        {onblur}></textarea>
    </label>
    <div class="mt-2 flex gap-2">
      <button class="btn btn-xs">Keep <kbd class="kbd kbd-xs">Enter</kbd></button>
      <button type="button" class="btn btn-xs btn-ghost" onclick={close}
        >Leave it <kbd class="kbd kbd-xs">Esc</kbd></button
      >
    </div>
  </form>
{:else if stands}
  <p class="text-sm leading-snug" data-testid="remark">
    <span class="font-medium">Bar {measure.number}:</span>
    {stands}
    <button class="btn btn-xs btn-ghost" onclick={() => (desk.remarking = true)}
      >change <kbd class="kbd kbd-xs">Shift r</kbd></button
    >
  </p>
{/if}
