<script lang="ts">
  import DrillView from '$lib/components/drills/DrillView.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Drill bench · Oculon</title></svelte:head>

{#key data.opened?.piece.id}
  <DrillView opening={data.opened} needs={data.needs} routines={data.routines} />
{/key}
