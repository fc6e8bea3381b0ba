<!-- What could not be shown. Without a line to the server nothing is lost: what waits to be sent is counted. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { page } from '$app/state';
  import { countUnsent } from '$lib/client/desk/unsent';

  /** Answers that came from the server; anything else means that none did. */
  const isAnswered = $derived(
    page.status < 500 || page.error?.message?.startsWith('Something went wrong here'),
  );
  let waiting = $state(0);
  onMount(async () => {
    waiting = await countUnsent().catch(() => 0);
  });
</script>

<svelte:head><title>Oculon</title></svelte:head>
<main class="mx-auto flex min-h-screen max-w-md flex-col items-start justify-center gap-4 p-8">
  <h1 class="font-serif text-3xl">
    {isAnswered ? (page.error?.message ?? 'Something went wrong.') : 'The server cannot be reached.'}
  </h1>
  {#if waiting > 0}
    <p data-testid="waiting">
      {waiting}
      {waiting === 1 ? 'change is' : 'changes are'} kept in this browser and will be sent when the server answers.
    </p>
  {/if}
  <div class="flex gap-2">
    <button class="btn btn-primary" onclick={() => location.reload()}>Try again</button>
    <a class="btn" href="/shelf">To the shelf</a>
  </div>
</main>
