<!--
  One mark. What is proposed, decided and printed differ in form, so that they are told apart in grey and at arm's
  length: pencil is thin and slanted, in a dashed circle; ink is bold and upright, in a thick circle; what came with the
  file stands in square brackets, its string in two circles. What contradicts has a zigzag under it.
-->
<script lang="ts">
  import type { PlacedMark } from '$core/engraving/placeMarks';
  import { DEPARTING } from '$core/engraving/sizes';

  interface Props {
    mark: PlacedMark;
    /** Of the page, and how large the edition wants its marks. */
    space: number;
    scale: number;
    conflict: boolean;
  }
  let { mark, space, scale, conflict }: Props = $props();

  const SIZES = {
    finger: 1.86,
    unplanned: 1.86,
    pluck: 1.55,
    string: 1.12,
    barre: 1.3,
    position: 1.3,
    touch: 1.3,
    guide: 1,
  } as const;
  const WEIGHTS = { pencil: 420, ink: 860, printed: 560 } as const;
  const LINES = { pencil: 0.09, ink: 0.19, printed: 0.1 } as const;

  const unit = $derived(scale * space);
  const size = $derived(SIZES[mark.kind] * unit);
  const box = $derived(mark.box);
  /** The sign of what is not as in the file stands behind it. */
  const signed = $derived(mark.departs === null ? 0 : DEPARTING * unit);
  const x = $derived(box.x + (box.width - signed) / 2);
  const y = $derived(box.y + box.height / 2);
  const fill = $derived(
    conflict || mark.kind === 'unplanned'
      ? 'var(--color-error)'
      : mark.state === 'pencil'
        ? 'var(--pencil)'
        : 'var(--paper-ink)',
  );
  const isStroke = $derived(mark.kind === 'pluck' && (mark.text === 'down' || mark.text === 'up'));
  /** Letters of the right hand are italic whoever wrote them. */
  const slanted = $derived(
    mark.kind === 'pluck' || mark.kind === 'touch' || (mark.kind === 'finger' && mark.state === 'pencil'),
  );
  /** Digits and small letters sit a little above the middle of their line. */
  const drop = $derived((mark.kind === 'pluck' ? 0.24 : 0.325) * size);
  const lineY = $derived(['barre', 'position', 'touch'].includes(mark.kind) ? y - 0.1 * unit : y);
  const line = $derived(LINES[mark.state] * unit);
  const bracketed = $derived(mark.state === 'printed' && mark.kind !== 'string');

  const bracket = (at: number, inwards: number) =>
    `M${at + inwards} ${box.y - 0.05 * unit} H${at} V${box.y + box.height + 0.05 * unit} H${at + inwards}`;
  const zigzag = $derived(
    `M${box.x} ${box.y + box.height} ` +
      Array.from({ length: 4 }, (_, k) => `l${box.width / 4} ${(k % 2 === 0 ? -1 : 1) * 0.22 * unit}`).join(
        ' ',
      ),
  );
</script>

<g
  data-mark={mark.kind}
  data-uid={mark.uid}
  data-state={mark.state}
  data-conflict={conflict ? 'yes' : undefined}
  font-family="'Source Serif 4 Variable', serif"
  font-size={size}
  font-style={slanted ? 'italic' : 'normal'}
  font-weight={WEIGHTS[mark.state]}
  {fill}
>
  {#if mark.kind === 'guide'}
    {#if mark.line}
      {@const { x1, y1, x2, y2 } = mark.line}
      <line {x1} {y1} {x2} {y2} stroke={fill} stroke-width={0.1 * unit} />
    {:else}
      <line x1={box.x} y1={y} x2={box.x + box.width} y2={y} stroke={fill} stroke-width={0.14 * unit} />
    {/if}
  {/if}
  {#if mark.kind === 'string'}
    <circle
      cx={x}
      cy={y}
      r={0.6 * unit}
      fill="var(--paper)"
      stroke={fill}
      stroke-width={line}
      stroke-dasharray={mark.state === 'pencil' ? `${0.34 * unit} ${0.17 * unit}` : undefined}
    />
    {#if mark.state === 'printed'}
      <circle cx={x} cy={y} r={0.44 * unit} fill="none" stroke={fill} stroke-width={0.05 * unit} />
    {/if}
  {/if}
  {#if mark.lineTo !== null}
    <path
      d="M{box.x + box.width + 0.15 * unit} {lineY} H{mark.lineTo} v{(mark.below ? -0.5 : 0.5) * unit}"
      fill="none"
      stroke={fill}
      stroke-width={0.09 * unit}
      stroke-dasharray={mark.kind === 'position' ? undefined : `${0.45 * unit} ${0.35 * unit}`}
    />
  {/if}
  {#if isStroke}
    <path
      d={mark.text === 'down'
        ? `M${x - 0.42 * unit} ${y + 0.5 * unit} v${-0.95 * unit} h${0.84 * unit} v${0.95 * unit}`
        : `M${x - 0.36 * unit} ${y - 0.5 * unit} l${0.36 * unit} ${1.05 * unit} l${0.36 * unit} ${-1.05 * unit}`}
      fill="none"
      stroke={fill}
      stroke-width={(mark.state === 'ink' ? 0.24 : 0.13) * unit}
    />
  {:else if mark.kind !== 'guide'}
    <text
      {x}
      y={y + drop}
      text-anchor="middle"
      stroke={mark.kind === 'finger' ? 'var(--paper)' : 'none'}
      stroke-width={0.28 * unit}
      paint-order="stroke"
      stroke-linejoin="round">{mark.text}</text
    >
  {/if}
  {#if bracketed}
    <path
      data-form="brackets"
      d="{bracket(box.x, 0.22 * unit)} {bracket(box.x + box.width, -0.22 * unit)}"
      fill="none"
      stroke={fill}
      stroke-width={0.1 * unit}
    />
  {/if}
  {#if mark.departs !== null}
    <path
      data-departs={mark.departs}
      d="M{box.x + box.width - signed} {box.y + 0.16 * unit} h{0.42 * unit} m{-0.42 * unit} {0.2 *
        unit} h{0.42 * unit} m{-0.33 * unit} {0.14 * unit} l{0.24 * unit} {-0.48 * unit}"
      fill="none"
      stroke="var(--paper-ink)"
      stroke-width={0.08 * unit}
    />
  {/if}
  {#if conflict}
    <path d={zigzag} data-form="zigzag" fill="none" stroke={fill} stroke-width={0.12 * unit} />
  {/if}
</g>
