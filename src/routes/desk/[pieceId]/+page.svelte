<script lang="ts">
  import DeskView from '$lib/components/desk/DeskView.svelte';
  import type { DeskOpening } from '$lib/client/desk.svelte';

  let { data } = $props();

  /** The source comes over its own address: it never changes, so the browser keeps it. */
  async function open(): Promise<DeskOpening> {
    const response = await fetch(`/api/pieces/${data.piece.id}/source`);
    if (!response.ok) throw new Error('The score could not be loaded; reload the page.');
    const source = new Uint8Array(await response.arrayBuffer());
    return { editionId: data.piece.editionId, history: data.history, headSeq: data.headSeq, source };
  }
</script>

<svelte:head><title>{data.piece.title} · Oculon</title></svelte:head>

{#key data.piece.id}
  {#await open()}
    <p class="p-12 text-center font-serif text-xl" role="status">Opening {data.piece.title} …</p>
  {:then opening}
    <DeskView {opening} title={data.piece.title} />
  {:catch error}
    <p role="alert" class="p-12 text-center">
      {error.message} <a class="link" href="/shelf">To the shelf</a>
    </p>
  {/await}
{/key}
