<!-- Which bars of a piece its drills are cut from. -->
<script lang="ts">
  import type { SourcePiece } from '$lib/client/drills/bench.svelte';

  interface Props {
    source: SourcePiece;
    range: { readonly first: number; readonly last: number };
    setRange: (first: number, last: number) => void;
  }
  let { source, range, setRange }: Props = $props();
  const { measures } = $derived(source.score);
</script>

<div class="mb-2 flex items-end gap-2 text-xs">
  <label class="flex flex-1 flex-col gap-0.5">
    From bar
    <select
      class="select select-xs w-full"
      value={range.first}
      onchange={(event) =>
        setRange(Number(event.currentTarget.value), Math.max(Number(event.currentTarget.value), range.last))}
    >
      {#each measures as { uid, number }, k (uid)}<option value={k}>{number}</option>{/each}
    </select>
  </label>
  <label class="flex flex-1 flex-col gap-0.5">
    to bar
    <select
      class="select select-xs w-full"
      value={range.last}
      onchange={(event) =>
        setRange(Math.min(range.first, Number(event.currentTarget.value)), Number(event.currentTarget.value))}
    >
      {#each measures as { uid, number }, k (uid)}<option value={k}>{number}</option>{/each}
    </select>
  </label>
</div>
