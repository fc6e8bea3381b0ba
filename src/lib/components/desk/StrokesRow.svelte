<!-- The right hand under the strings: its letters, where it crosses, repeats or rests, and the figures that it plays. -->
<script lang="ts">
  import type { FigureLane } from '$core/engraving/lanes';
  import type { PlannedFigure } from '$core/fingering/right/explain/plannedFigures';
  import type { PlannedStroke } from '$core/fingering/right/explain/report';
  import { figureReasonText, formulaText, TEXTURE_NAMES } from '$core/messages/figures';
  import { FIGURE_ROW, type RowProps } from './lanesLayout';
  import { isPick } from '$core/score/model';

  interface Props extends Omit<RowProps, 'right'> {
    select: (uid: string) => void;
    title: (stroke: PlannedStroke) => string;
  }
  let { lanes, top, unit, left, select, title }: Props = $props();

  const letterY = $derived(top + 1.65 * unit);
  const signY = $derived(top + 0.2 * unit);
  const figureY = $derived(top + 2.65 * unit);
  /** Thumb and fingers of a chord stand in one word, p first. */
  const word = ({ letters, order }: PlannedStroke) => (isPick(letters[0] ?? null) ? '' : order.join(''));
  const figures = $derived(lanes.figures.filter(({ figure }) => figure.rule !== 'withUpper'));
  const figureTitle = (figure: PlannedFigure) =>
    `${TEXTURE_NAMES[figure.texture]}: ${figureReasonText(figure)}${figure.formula.length > 0 ? `; ${formulaText(figure.formula)}` : ''}`;
  /** The texture and what goes round in it, as far as there is room. */
  function words({ span, figure }: FigureLane): string {
    const name = TEXTURE_NAMES[figure.texture];
    const whole = figure.formula.length > 0 ? `${name}, ${formulaText(figure.formula)}` : name;
    const fits = (text: string) => text.length * 0.58 * unit < span.x2 - span.x1;
    return fits(whole) ? whole : fits(name) ? name : '';
  }
</script>

<g data-testid="strokes">
  <line
    x1={left}
    x2={lanes.strokes.at(-1)?.x ?? left}
    y1={top - 0.45 * unit}
    y2={top - 0.45 * unit}
    stroke="currentColor"
    stroke-width={0.05 * unit}
    opacity="0.3"
  />
  {#each lanes.strokes as lane (lane.id)}
    {@const { stroke, x } = lane}
    <g
      role="button"
      tabindex="-1"
      class="cursor-pointer"
      aria-label={title(stroke)}
      data-stroke={stroke.momentIndex}
      data-against={stroke.move?.against ? 'yes' : undefined}
      onclick={() => select(stroke.uids.at(-1) ?? '')}
      onkeydown={(event) => event.key === 'Enter' && select(stroke.uids.at(-1) ?? '')}
    >
      <title>{title(stroke)}</title>
      <rect
        x={x - 0.8 * unit}
        y={top - 0.4 * unit}
        width={1.6 * unit}
        height={3.2 * unit}
        fill="transparent"
      />
      {#if isPick(stroke.letters[0] ?? null)}
        <path
          d={stroke.letters[0] === 'down'
            ? `M${x - 0.45 * unit} ${letterY} v${-1 * unit} h${0.9 * unit} v${1 * unit}`
            : `M${x - 0.4 * unit} ${letterY - 1 * unit} l${0.4 * unit} ${1.1 * unit} l${0.4 * unit} ${-1.1 * unit}`}
          fill="none"
          stroke="currentColor"
          stroke-width={0.16 * unit}
        />
      {:else}
        <text
          {x}
          y={letterY}
          text-anchor="middle"
          font-size={1.6 * unit}
          font-style="italic"
          font-weight={stroke.move?.against ? 700 : 450}
          style:font-family="var(--font-serif)"
          fill="currentColor">{word(stroke)}</text
        >
      {/if}
      {#if stroke.move?.against}
        <!-- Two lines that cross: a finger over another. -->
        <path
          d="M{x - 0.42 * unit} {signY - 0.32 * unit} l{0.84 * unit} {0.6 * unit} m0 {-0.6 * unit} l{-0.84 *
            unit} {0.6 * unit}"
          stroke="currentColor"
          stroke-width={0.17 * unit}
          data-kind="crossing"
        />
      {:else if stroke.move}
        <path
          d="M{x - 0.5 * unit} {signY} h{1 * unit} m{-0.3 * unit} {-0.24 * unit} l{0.3 * unit} {0.24 *
            unit} l{-0.3 * unit} {0.24 * unit}"
          fill="none"
          stroke="currentColor"
          stroke-width={0.11 * unit}
          data-kind="move"
        />
      {/if}
      {#if stroke.again && stroke.effort >= 10}
        <line
          x1={x - 0.5 * unit}
          x2={x + 0.5 * unit}
          y1={letterY + 0.55 * unit}
          y2={letterY + 0.55 * unit}
          stroke="currentColor"
          stroke-width={0.18 * unit}
          data-kind="again"
        />
      {/if}
      {#if stroke.rest}
        <circle cx={x} cy={letterY + 0.72 * unit} r={0.17 * unit} fill="currentColor" data-kind="rest" />
      {/if}
    </g>
  {/each}
  {#each figures as lane (lane.id)}
    {@const y = figureY + lane.row * FIGURE_ROW * unit}
    {@const shown = words(lane)}
    <g
      role="button"
      tabindex="-1"
      class="cursor-pointer"
      aria-label={figureTitle(lane.figure)}
      data-figure={lane.figure.texture}
      onclick={() => select(lane.figure.uids[0] ?? '')}
      onkeydown={(event) => event.key === 'Enter' && select(lane.figure.uids[0] ?? '')}
    >
      <title>{figureTitle(lane.figure)}</title>
      <rect
        x={lane.span.x1 - 0.4 * unit}
        y={y - 0.4 * unit}
        width={lane.span.x2 - lane.span.x1 + 0.8 * unit}
        height={1.9 * unit}
        fill="transparent"
      />
      <path
        d="M{lane.span.x1} {y + 0.5 * unit} v{-0.5 * unit} H{lane.span.x2}"
        fill="none"
        stroke="currentColor"
        stroke-width={(lane.figure.rule === 'teacher' ? 0.26 : 0.12) * unit}
        stroke-dasharray={lane.figure.texture === 'mixed' ? `${0.3 * unit} ${0.4 * unit}` : undefined}
      />
      {#if shown !== ''}
        <text
          x={lane.span.x1 + 0.35 * unit}
          y={y + 1.08 * unit}
          font-size={1.12 * unit}
          font-weight={lane.figure.rule === 'teacher' ? 700 : 400}
          style:font-family="var(--font-sans)"
          fill="currentColor">{shown}</text
        >
      {/if}
    </g>
  {/each}
</g>
