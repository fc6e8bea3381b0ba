<!-- Which signs of a note a careful editor would print, and why; the others are left out at teaching density. -->
<script lang="ts">
  import type { Mark } from '$core/marks/mark';
  import type { Density } from '$core/marks/style';
  import { causeText, markText } from '$core/messages/marks';

  interface Props {
    marks: readonly Mark[];
    density: Density;
  }
  let { marks, density }: Props = $props();

  const printed = $derived(marks.filter(({ causes }) => causes.length > 0));
</script>

{#if density === 'teaching' && marks.length > 0}
  <section aria-labelledby="printed-heading" class="text-sm" data-testid="mark-reasons">
    <h3 id="printed-heading" class="mb-1 text-xs">On the page</h3>
    {#if printed.length === 0}
      <p class="text-xs leading-snug opacity-80">Nothing: a student would play it so.</p>
    {/if}
    <ul class="flex flex-col gap-0.5 text-xs leading-snug">
      {#each printed as mark (mark.id)}
        <li>
          <span class="font-semibold {mark.kind === 'pluck' ? 'font-serif italic' : ''}"
            >{markText(mark)}</span
          >:
          {mark.causes.map((cause) => causeText(cause, mark.kind)).join('; ')}
        </li>
      {/each}
    </ul>
  </section>
{/if}
