<script lang="ts">
  import type { SaveState } from '$lib/client/desk/saver.svelte';
  let { state }: { state: SaveState } = $props();

  const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
  const text = $derived.by(() => {
    switch (state.kind) {
      case 'saved':
        return state.at ? `saved ${clock.format(state.at)}` : 'saved';
      case 'saving':
        return 'saving …';
      case 'waiting':
        return `kept in this browser, ${state.count} to send`;
      case 'signedOut':
        return `signed out, ${state.count} kept in this browser`;
    }
  });
</script>

<span
  role="status"
  data-testid="save-state"
  class="text-sm tabular-nums {state.kind === 'waiting' || state.kind === 'signedOut'
    ? 'text-warning font-medium'
    : ''}">{text}</span
>
