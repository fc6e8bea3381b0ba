<script lang="ts">
  import DrillView from '$lib/components/drills/DrillView.svelte';
</script>

<svelte:head><title>Drill bench · Oculon</title></svelte:head>

<DrillView />
