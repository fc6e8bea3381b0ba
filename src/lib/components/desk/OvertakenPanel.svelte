<!-- Marks that somebody else was faster with: both values, and which of them stay. -->
<script lang="ts">
  import type { Desk } from '$lib/client/desk/desk.svelte';

  let { desk }: { desk: Desk } = $props();
  const { session } = $derived(desk);
  const words = (value: unknown) => (value === null ? 'nothing' : String(value));
</script>

{#if session.overtaken.length > 0}
  <section
    aria-label="Somebody else was faster"
    class="border-warning rounded-box border p-3 text-sm"
    data-testid="overtaken"
  >
    <ul>
      {#each session.overtaken as { target, attribute, mine } (target + attribute)}
        <li>
          <button class="link" onclick={() => desk.selection.select(target)}
            >{desk.nameOf(target) || target}, bar {desk.selection.barOf(target)}</button
          >: {attribute}: theirs {words(session.valueOf(target, attribute))}, yours {words(mine)}
        </li>
      {/each}
    </ul>
    <div class="mt-2 flex gap-2">
      <button class="btn btn-xs" onclick={() => session.takeMine()}
        >Mine <kbd class="kbd kbd-xs">Shift m</kbd></button
      >
      <button class="btn btn-xs" onclick={() => session.takeTheirs()}
        >Theirs <kbd class="kbd kbd-xs">Shift t</kbd></button
      >
    </div>
  </section>
{/if}
