<script lang="ts">
  import DeskView from '$lib/components/desk/DeskView.svelte';

  let { data } = $props();
  const { piece, version } = $derived(data.opened);
</script>

<svelte:head><title>{piece.title} · Oculon</title></svelte:head>

{#key `${version.id} ${data.opened.headSeq}`}
  <DeskView opening={data.opened} title={piece.title} />
{/key}
