<script lang="ts">
  import SurveyView from '$lib/components/survey/SurveyView.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Survey of {data.opened.piece.title} · Oculon</title></svelte:head>

{#key data.opened.version.id}
  <SurveyView opening={data.opened} />
{/key}
