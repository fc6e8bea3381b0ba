<!-- What each string really sounds: a tick where a note begins, its written length, what is cut and what rings over. -->
<script lang="ts">
  import { STRINGS } from '$core/instrument/tuning';
  import { RING_ENDS } from '$core/messages/hand';
  import { RING_ROW, type RowProps } from './lanesLayout';

  let { lanes, top, unit, left, right }: RowProps = $props();

  const yOf = (string: number) => top + (string - 0.5) * RING_ROW * unit;
</script>

<g data-testid="rings">
  {#each STRINGS as string (string)}
    <line
      x1={left}
      x2={right}
      y1={yOf(string)}
      y2={yOf(string)}
      stroke="currentColor"
      stroke-width={0.05 * unit}
      opacity="0.35"
    />
    <circle
      cx={left - 0.9 * unit}
      cy={yOf(string)}
      r={0.45 * unit}
      fill="none"
      stroke="currentColor"
      stroke-width={0.05 * unit}
    />
    <text
      x={left - 0.9 * unit}
      y={yOf(string) + 0.28 * unit}
      text-anchor="middle"
      font-size={0.78 * unit}
      style:font-family="var(--font-sans)"
      fill="currentColor">{string}</text
    >
  {/each}
  {#each lanes.bars as x (x)}
    <line
      x1={x}
      x2={x}
      y1={top}
      y2={top + 6 * RING_ROW * unit}
      stroke="currentColor"
      stroke-width={0.08 * unit}
      opacity="0.5"
    />
  {/each}
  {#each lanes.rings as lane (lane.id)}
    {@const y = yOf(lane.string)}
    <g data-ring={lane.ring.uid} data-end={lane.ring.end}>
      <title>{RING_ENDS[lane.ring.end]}</title>
      {#if lane.overhang}
        <line
          x1={lane.overhang.x1}
          x2={lane.overhang.x2}
          y1={y}
          y2={y}
          stroke="currentColor"
          stroke-width={0.16 * unit}
          stroke-dasharray="{0.4 * unit} {0.45 * unit}"
          data-kind="overhang"
        />
      {/if}
      {#if lane.sounding}
        <line
          x1={lane.sounding.x1}
          x2={Math.max(lane.sounding.x2 - 0.2 * unit, lane.sounding.x1 + 0.3 * unit)}
          y1={y}
          y2={y}
          stroke="currentColor"
          stroke-width={(lane.ring.free ? 0.24 : 0.38) * unit}
          data-kind="sounding"
        />
      {/if}
      {#if lane.cut}
        <rect
          x={lane.cut.x1}
          y={y - 0.3 * unit}
          width={lane.cut.x2 - lane.cut.x1}
          height={0.6 * unit}
          fill="url(#cut-hatch)"
          stroke="currentColor"
          stroke-width={0.09 * unit}
          data-kind="cut"
        />
      {/if}
      {#if lane.begins}
        {@const x = (lane.sounding ?? lane.cut ?? lane.overhang)!.x1}
        <line
          x1={x}
          x2={x}
          y1={y - 0.38 * unit}
          y2={y + 0.38 * unit}
          stroke="currentColor"
          stroke-width={0.2 * unit}
          data-kind="onset"
        />
      {/if}
    </g>
  {/each}
</g>
