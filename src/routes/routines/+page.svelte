<script lang="ts">
  import RoutinesView from '$lib/components/drills/RoutinesView.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Routines · Oculon</title></svelte:head>

<RoutinesView routines={data.routines} />
