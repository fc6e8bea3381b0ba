<script lang="ts">
  import CopyView from '$lib/components/copy/CopyView.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Copy of {data.opened.piece.title} · Oculon</title></svelte:head>

{#key data.opened.version.id}
  <CopyView opening={data.opened} />
{/key}
