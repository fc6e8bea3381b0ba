<!-- The left hand over time: frets up, time across. The hand is a band over four frets, each finger a line while it is down. -->
<script lang="ts">
  import { HAND, type RingLane, type ShiftLane } from '$core/engraving/lanes';
  import type { PlannedShift } from '$core/fingering/report/plan';
  import { roman } from '$core/music/roman';
  import { NECK, NECK_WORDS, roomy, type RowProps } from './lanesLayout';

  interface Props extends RowProps {
    select: (uid: string) => void;
  }
  let { lanes, top, unit, left, right, select }: Props = $props();

  const LEAST_FRETS = 6;

  const stopped = $derived(lanes.rings.filter(({ fret, sounding }) => fret > 0 && sounding !== null));
  const lowest = $derived(
    Math.min(...lanes.hand.map(({ position }) => position), ...stopped.map(({ fret }) => fret), 12),
  );
  const highest = $derived(
    Math.max(
      ...lanes.hand.map(({ position }) => position + HAND - 1),
      ...stopped.map(({ fret }) => fret),
      lowest + LEAST_FRETS - 1,
    ),
  );
  const row = $derived((NECK * unit) / (highest - lowest + 1));
  const yOf = (fret: number) => top + NECK_WORDS * unit + (highest - fret + 0.5) * row;
  /** Fingers on one fret stand a little apart, the high strings higher. */
  const lineY = ({ fret, string }: Pick<RingLane, 'fret' | 'string'>) =>
    yOf(fret) + (string - 3.5) * Math.min(0.13 * unit, row / 8);

  /** Where the numeral of each finger stands: at the beginning of its line, or beside one that is there already. */
  const numeralX = $derived.by(() => {
    const placed: { readonly x: number; readonly y: number }[] = [];
    const apart = 1.05 * unit;
    return new Map(
      stopped.map((lane) => {
        const y = lineY(lane);
        let x = lane.sounding!.x1;
        while (placed.some((one) => Math.abs(one.x - x) < apart && Math.abs(one.y - y) < apart)) x += apart;
        placed.push({ x, y });
        return [lane.id, x];
      }),
    );
  });

  const RISKS = { free: '', tight: ', tight', tooFast: ', too fast' } as const;
  const shiftWords = ({ jump, distanceMm, windowMs, risk }: PlannedShift) =>
    `${jump ? `${jump}, ` : ''}${distanceMm} mm in ${windowMs} ms${RISKS[risk]}`;
  const CARRIERS: Readonly<Record<PlannedShift['carrier'], string>> = {
    none: 'nothing carries it',
    open: 'on an open string or rest',
    guide: 'a guide finger carries it',
    shape: 'the whole shape slides',
    pivot: 'a finger stays as pivot',
  };
  const JUMPS = { back: 'back where it is repeated, ', on: 'on to the other ending, ' } as const;
  const shiftTitle = (shift: PlannedShift) =>
    `${shift.jump ? JUMPS[shift.jump] : ''}${roman(shift.fromPosition)} to ${roman(shift.toPosition)}: ${shiftWords(shift)}; needs about ${shift.neededMs} ms; ${CARRIERS[shift.carrier]}; works up to ♩ = ${shift.worksUpToBpm}`;

  const RANK = { tooFast: 0, tight: 1, free: 2 } as const;
  const numerals = $derived(
    roomy(
      lanes.hand.map(({ id, span, position }) => ({
        id,
        at: span.x1,
        room: (0.8 + 0.9 * roman(position).length) * unit,
      })),
    ),
  );
  /** Numerals that stand as high as the words over the neck. */
  const taken = $derived(
    lanes.hand
      .filter(
        ({ id, position }) => numerals.has(id) && bandTop(position) - 1.5 * unit < top + NECK_WORDS * unit,
      )
      .map(({ span, position }) => ({
        from: span.x1,
        to: span.x1 + (0.8 + 0.9 * roman(position).length) * unit,
      })),
  );
  /** As much as there is room for; the whole stands in the title. */
  const sayings = (shift: PlannedShift) => [
    shiftWords(shift),
    `${shift.distanceMm} mm, ${shift.windowMs} ms`,
    `${shift.distanceMm} mm`,
  ];
  /** The words of each shift, and where they begin: at its window, behind or before it; the worst first, none over another. */
  const said = $derived.by(() => {
    const placed = [...taken];
    const words = new Map<string, { readonly x: number; readonly text: string }>();
    const worstFirst = [...lanes.shifts].sort(
      (a, b) => RANK[a.shift.risk] - RANK[b.shift.risk] || b.shift.distanceMm - a.shift.distanceMm,
    );
    for (const { id, span, shift } of worstFirst) {
      const near = taken.find(({ from }) => Math.abs(from - span.x2) < unit);
      for (const text of sayings(shift)) {
        const room = 0.72 * text.length * unit;
        const tries = [span.x1, (near?.to ?? span.x2) + 0.4 * unit, span.x2 - room - 0.4 * unit];
        const x = tries.find(
          (from) =>
            from >= left &&
            from + room <= right + 0.5 * unit &&
            placed.every((one) => from >= one.to || from + room <= one.from),
        );
        if (x === undefined) continue;
        words.set(id, { x, text });
        placed.push({ from: x, to: x + room + 0.6 * unit });
        break;
      }
    }
    return words;
  });
  const bandTop = (position: number) => yOf(position + HAND - 1) - row / 2;
  const bandBottom = (position: number) => yOf(position) + row / 2;
  /** The hand on its way, from where it may leave to where it must be. */
  const way = ({ span, shift }: ShiftLane) =>
    `M${span.x1} ${bandTop(shift.fromPosition)} L${span.x2} ${bandTop(shift.toPosition)} V${bandBottom(shift.toPosition)} L${span.x1} ${bandBottom(shift.fromPosition)} Z`;
</script>

<g data-testid="neckline">
  {#each Array.from({ length: highest - lowest + 2 }, (_, k) => lowest + k) as fret (fret)}
    <line
      x1={left}
      x2={right}
      y1={yOf(fret) + row / 2}
      y2={yOf(fret) + row / 2}
      stroke="currentColor"
      stroke-width={0.05 * unit}
      opacity="0.22"
    />
  {/each}
  {#each lanes.hand as lane (lane.id)}
    <rect
      x={lane.span.x1}
      y={bandTop(lane.position)}
      width={lane.span.x2 - lane.span.x1}
      height={bandBottom(lane.position) - bandTop(lane.position)}
      fill="currentColor"
      opacity="0.1"
      data-hand={lane.position}
    />
    {#if numerals.has(lane.id)}
      <text
        x={lane.span.x1 + 0.25 * unit}
        y={bandTop(lane.position) - 0.2 * unit}
        font-size={1.3 * unit}
        font-weight="600"
        style:font-family="var(--font-serif)"
        fill="currentColor">{roman(lane.position)}</text
      >
    {/if}
  {/each}
  {#each lanes.fingers.filter(({ reaches }) => reaches) as lane (lane.id)}
    <rect
      x={lane.span.x1}
      y={yOf(lane.stay.fret) - row / 2}
      width={lane.span.x2 - lane.span.x1}
      height={row}
      fill="currentColor"
      opacity="0.06"
      stroke="currentColor"
      stroke-width={0.06 * unit}
      stroke-dasharray="{0.3 * unit} {0.25 * unit}"
      data-reach={lane.stay.finger}
    />
  {/each}
  {#each lanes.barres as lane (lane.id)}
    <rect
      x={lane.span.x1 - 0.3 * unit}
      y={yOf(lane.barre.fret) - Math.min(row / 2, 0.5 * unit)}
      width={lane.span.x2 - lane.span.x1}
      height={Math.min(row, unit)}
      rx={0.4 * unit}
      fill="none"
      stroke="currentColor"
      stroke-width={0.12 * unit}
      data-barre={lane.barre.fret}
    />
  {/each}
  {#each lanes.shifts as lane (lane.id)}
    <g
      role="button"
      tabindex="-1"
      class="cursor-pointer"
      aria-label={shiftTitle(lane.shift)}
      data-shift={lane.shift.toUid}
      onclick={() => select(lane.shift.toUid)}
      onkeydown={(event) => event.key === 'Enter' && select(lane.shift.toUid)}
    >
      <title>{shiftTitle(lane.shift)}</title>
      {#if lane.shift.jump === null}
        <path d={way(lane)} fill="url(#window-dots)" opacity="0.55" />
      {/if}
      <path
        d="M{lane.span.x1} {top + 1.5 * unit} H{lane.span.x2} m{-0.5 * unit} {-0.35 * unit} l{0.5 *
          unit} {0.35 * unit} l{-0.5 * unit} {0.35 * unit}"
        stroke="currentColor"
        stroke-width={(lane.shift.risk === 'free' ? 0.12 : 0.24) * unit}
        fill="none"
      />
      <rect
        x={lane.span.x1}
        y={top}
        width={Math.max(lane.span.x2 - lane.span.x1, unit)}
        height={(NECK + NECK_WORDS) * unit}
        fill="transparent"
      />
      {#if said.has(lane.id)}
        <text
          x={said.get(lane.id)!.x}
          y={top + 1.05 * unit}
          font-size={1.3 * unit}
          font-weight={lane.shift.risk === 'free' ? 400 : 700}
          style:font-family="var(--font-sans)"
          fill="currentColor">{said.get(lane.id)!.text}</text
        >
      {/if}
    </g>
  {/each}
  {#each lanes.fingers as { id, stay, span } (id)}
    <line
      x1={span.x1}
      x2={Math.max(span.x2 - 0.25 * unit, span.x1)}
      y1={lineY(stay)}
      y2={lineY(stay)}
      stroke="currentColor"
      stroke-width={0.09 * unit}
      data-down={stay.finger}
    />
  {/each}
  {#each lanes.slides as { id, from, to, span } (id)}
    <line
      x1={span.x1}
      x2={span.x2}
      y1={lineY(from)}
      y2={lineY(to)}
      stroke="currentColor"
      stroke-width={0.16 * unit}
      data-slide={to.finger}
    />
  {/each}
  {#each stopped as lane (lane.id)}
    {@const y = lineY(lane)}
    <g data-finger={lane.finger} data-fret={lane.fret}>
      <line
        x1={lane.sounding!.x1}
        x2={Math.max(lane.sounding!.x2 - 0.25 * unit, lane.sounding!.x1 + 0.3 * unit)}
        y1={y}
        y2={y}
        stroke="currentColor"
        stroke-width={0.3 * unit}
      />
      {#if lane.begins}
        <circle cx={numeralX.get(lane.id)} cy={y} r={0.55 * unit} fill="var(--paper)" />
        <text
          x={numeralX.get(lane.id)}
          y={y + 0.42 * unit}
          text-anchor="middle"
          font-size={1.2 * unit}
          font-weight="600"
          style:font-family="var(--font-serif)"
          fill="currentColor">{lane.finger}</text
        >
      {/if}
    </g>
  {/each}
</g>
