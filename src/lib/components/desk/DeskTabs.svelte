<!-- Which panel stands beside the score. The arrows go from tab to tab. -->
<script lang="ts">
  import { Tabs } from 'bits-ui';
  import { type Desk, DESK_TABS, type DeskTab } from '$lib/client/desk/desk.svelte';

  interface Props {
    desk: Desk;
    /** Whether something was noticed in the file. */
    noticed: boolean;
  }
  let { desk, noticed }: Props = $props();

  const NAMES: Readonly<Record<DeskTab, string>> = {
    note: 'Note',
    steps: 'Steps',
    hand: 'Hand',
    strokes: 'Strokes',
    score: 'Score',
  };
</script>

<Tabs.Root value={desk.tab} onValueChange={(tab) => (desk.tab = tab as DeskTab)}>
  <Tabs.List class="tabs tabs-border flex-nowrap" aria-label="Side panel">
    {#each DESK_TABS as id, k (id)}
      <Tabs.Trigger
        value={id}
        class="tab text-base-content! px-2! {desk.tab === id ? 'tab-active' : ''}"
        title="{NAMES[id]} (Alt {k + 1})"
      >
        {NAMES[id]}
        {#if id === 'score' && noticed}
          <span class="text-warning ml-1 font-semibold" title="Something was noticed in the file">!</span>
        {/if}
      </Tabs.Trigger>
    {/each}
  </Tabs.List>
</Tabs.Root>
