<!--
  One mark. Pencil, ink and printed differ in weight and shape, not only in shade: pencil is light and grey, ink
  is bold and black, printed is upright black with a thin underline.
-->
<script lang="ts">
  import type { PlacedMark } from '$core/engraving/placeMarks';

  interface Props {
    mark: PlacedMark;
    space: number;
    conflict: boolean;
  }
  let { mark, space, conflict }: Props = $props();

  const SIZES = { finger: 1.42, unplanned: 1.5, pluck: 1.55, string: 1.12, barre: 1.3 } as const;

  const size = $derived(SIZES[mark.kind] * space);
  const x = $derived(mark.box.x + mark.box.width / 2);
  const y = $derived(mark.box.y + mark.box.height / 2);
  const fill = $derived(
    conflict || mark.kind === 'unplanned'
      ? 'var(--color-error)'
      : mark.state === 'pencil'
        ? 'var(--pencil)'
        : 'var(--paper-ink)',
  );
  const weight = $derived(mark.state === 'ink' ? 800 : mark.state === 'printed' ? 600 : 440);
  /** Digits and small letters sit a little above the middle of their line. */
  const drop = $derived((mark.kind === 'pluck' ? 0.24 : 0.33) * size);
  const lineY = $derived(mark.kind === 'barre' ? y - 0.1 * space : y);
  const drawn = $derived(mark.state === 'ink' ? 0.13 : 0.08);
</script>

<g
  data-mark={mark.kind}
  data-uid={mark.uid}
  data-state={mark.state}
  font-family="'Source Serif 4 Variable', serif"
  font-size={size}
  font-style={mark.kind === 'pluck' ? 'italic' : 'normal'}
  font-weight={weight}
  {fill}
>
  {#if mark.kind === 'string'}
    <circle cx={x} cy={y} r={0.6 * space} fill="var(--paper)" stroke={fill} stroke-width={drawn * space} />
  {/if}
  {#if mark.lineTo !== null}
    <path
      d="M{mark.box.x + mark.box.width + 0.15 * space} {lineY} H{mark.lineTo} v{(mark.below ? -0.5 : 0.5) *
        space}"
      fill="none"
      stroke={fill}
      stroke-width={0.09 * space}
      stroke-dasharray="{0.45 * space} {0.35 * space}"
    />
  {/if}
  {#if mark.kind === 'pluck' && (mark.text === 'down' || mark.text === 'up')}
    <path
      d={mark.text === 'down'
        ? `M${x - 0.42 * space} ${y + 0.5 * space} v${-0.95 * space} h${0.84 * space} v${0.95 * space}`
        : `M${x - 0.36 * space} ${y - 0.5 * space} l${0.36 * space} ${1.05 * space} l${0.36 * space} ${-1.05 * space}`}
      fill="none"
      stroke={fill}
      stroke-width={(mark.state === 'ink' ? 0.2 : 0.13) * space}
    />
  {:else}
    <text
      {x}
      y={y + drop}
      text-anchor="middle"
      stroke={mark.kind === 'finger' ? 'var(--paper)' : 'none'}
      stroke-width={0.28 * space}
      paint-order="stroke"
      stroke-linejoin="round">{mark.text}</text
    >
  {/if}
  {#if mark.state === 'printed'}
    <path
      d="M{mark.box.x} {mark.box.y + mark.box.height} h{mark.box.width}"
      fill="none"
      stroke={fill}
      stroke-width={0.07 * space}
    />
  {/if}
</g>
