<!-- The mark of the house: rings of a soundhole. -->
<script lang="ts">
  let { size = 28 }: { size?: number } = $props();
</script>

<svg width={size} height={size} viewBox="0 0 40 40" aria-hidden="true" class="text-primary">
  <circle cx="20" cy="20" r="18.5" fill="none" stroke="currentColor" stroke-width="0.8" />
  <circle
    cx="20"
    cy="20"
    r="15.5"
    fill="none"
    stroke="currentColor"
    stroke-width="3.4"
    stroke-dasharray="3.2 2.2"
  />
  <circle cx="20" cy="20" r="12.4" fill="none" stroke="currentColor" stroke-width="0.8" />
  <circle cx="20" cy="20" r="9.5" fill="currentColor" />
</svg>
