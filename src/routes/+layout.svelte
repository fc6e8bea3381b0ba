<script lang="ts">
  import '../app.css';
  import { beforeNavigate } from '$app/navigation';
  import { reach } from '$lib/client/reach.svelte';

  let { children } = $props();

  /** Without a line a view would turn into an error: whoever wants to leave it stays, and is told why. */
  let stays = $state(false);
  beforeNavigate((navigation) => {
    stays = !navigation.willUnload && (!navigator.onLine || reach.waiting > 0);
    if (stays) navigation.cancel();
  });
</script>

{@render children()}

{#if stays && (reach.waiting > 0 || !navigator.onLine)}
  <div
    role="alert"
    class="bg-base-100 border-warning rounded-box fixed bottom-4 left-1/2 flex -translate-x-1/2 items-center gap-3 border p-3 text-sm shadow-lg"
    data-testid="no-line"
  >
    <span
      >The server cannot be reached, so this view stays.
      {#if reach.waiting > 0}{reach.waiting}
        {reach.waiting === 1 ? 'change waits' : 'changes wait'} here and will be sent.{/if}</span
    >
    <button class="btn btn-xs" onclick={() => (stays = false)}>Close</button>
  </div>
{/if}
