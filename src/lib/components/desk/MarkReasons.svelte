<!-- Which signs of a note are printed at a density that leaves some out, and why. -->
<script lang="ts">
  import { causeText, markText } from '$core/messages/marks';
  import type { Desk } from '$lib/client/desk/desk.svelte';

  interface Props {
    desk: Desk;
  }
  let { desk }: Props = $props();

  const isKept = $derived(desk.isAlwaysPrinted);
</script>

{#if desk.session.markStyle.density !== 'full' && desk.selection.note}
  <section aria-labelledby="printed-heading" class="text-sm" data-testid="mark-reasons">
    <div class="mb-1 flex items-center justify-between">
      <h3 id="printed-heading" class="text-xs">On the page</h3>
      <button
        class="btn btn-ghost btn-xs font-normal"
        aria-pressed={isKept}
        title="Print the marks of this note at every density (h)"
        onclick={() => desk.toggleAlwaysPrint()}>{isKept ? 'Always printed' : 'Always print'}</button
      >
    </div>
    {#if desk.marksHere.length === 0}
      <p class="text-xs leading-snug opacity-80">Nothing: a student would play it so.</p>
    {/if}
    <ul class="flex flex-col gap-0.5 text-xs leading-snug">
      {#each desk.marksHere as mark (mark.id)}
        <li>
          <span class="font-semibold {mark.kind === 'pluck' ? 'font-serif italic' : ''}"
            >{markText(mark)}</span
          >:
          {mark.causes.length > 0
            ? mark.causes.map((cause) => causeText(cause, mark.kind)).join('; ')
            : isKept
              ? 'always printed'
              : 'the rest of the page is read from it'}
        </li>
      {/each}
    </ul>
  </section>
{/if}
