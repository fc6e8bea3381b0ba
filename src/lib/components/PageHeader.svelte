<!-- The head of every view of a piece: back to the shelf, what is open, and on the right what can be done with it. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import Rosette from '$lib/components/Rosette.svelte';

  interface Props {
    title: string;
    /** After the title: whether all is saved. */
    state?: Snippet;
    actions?: Snippet;
    /** Where one comes from, if not from the shelf. */
    back?: { readonly href: string; readonly name: string };
  }
  let { title, state, actions, back = { href: '/shelf', name: 'Shelf' } }: Props = $props();
</script>

<header class="border-base-300 bg-base-100 flex flex-wrap items-center gap-x-3 gap-y-1 border-b px-4 py-2">
  <a href={back.href} class="flex items-center gap-2" aria-label="To the {back.name.toLowerCase()}">
    <Rosette size={24} />
    <span class="text-sm underline-offset-4 hover:underline">{back.name}</span>
  </a>
  <span class="opacity-40" aria-hidden="true">/</span>
  <h1 class="font-serif text-lg font-semibold">{title}</h1>
  {#if state}<span class="ml-3">{@render state()}</span>{/if}
  {#if actions}<div class="ml-auto flex flex-wrap items-center gap-1">{@render actions()}</div>{/if}
</header>
