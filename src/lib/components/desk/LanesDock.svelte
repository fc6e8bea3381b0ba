<!-- Under the score, aligned with its notes: where the hand stands and moves, and what each string really sounds. -->
<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import ChevronUp from '@lucide/svelte/icons/chevron-up';
  import type { EngravedPage } from '$core/engraving/page';
  import { systemLanes } from '$core/engraving/lanes';
  import type { FingeringPlan, PlannedShift } from '$core/fingering/report/plan';
  import type { PlannedStroke } from '$core/fingering/right/explain/report';
  import { RING_ENDS } from '$core/messages/hand';
  import { strokeWords } from '$core/messages/strokes';
  import { FIGURE_ROW } from './lanesLayout';
  import StrokesRow from './StrokesRow.svelte';
  import { roman } from '$core/music/roman';
  import { openMidi, STRINGS, tuningOrThrow } from '$core/instrument/tuning';
  import { midiName } from '$core/music/pitch';
  import type { Score } from '$core/score/model';

  interface Props {
    page: EngravedPage;
    score: Score;
    plan: FingeringPlan;
    selectedUid: string | null;
    select: (uid: string) => void;
    shown: boolean;
    toggle: () => void;
  }
  let { page, score, plan, selectedUid, select, shown, toggle }: Props = $props();

  const box = $derived(page.notes.find((note) => note.uid === selectedUid) ?? page.notes[0] ?? null);
  const system = $derived(box?.system ?? 0);
  const lanes = $derived(systemLanes(page, score, plan, system));
  const names = $derived(STRINGS.map((string) => midiName(openMidi(tuningOrThrow(score.tuningId), string))));

  // In layout units, so that everything stands under its note at any width.
  const unit = $derived(page.staffSpace);
  const top = $derived(6.9 * unit);
  const step = $derived(2.35 * unit);
  /** The strokes stand under the strings: letters, then the formula that goes round. */
  const strokesTop = $derived(top + 6 * step + 0.9 * unit);
  const figureRows = $derived(
    1 +
      Math.max(0, ...lanes.figures.filter(({ figure }) => figure.rule !== 'withUpper').map(({ row }) => row)),
  );
  const height = $derived(strokesTop + (3.6 + FIGURE_ROW * figureRows) * unit);
  const strokeTitle = (stroke: PlannedStroke) => strokeWords(stroke).join('; ');
  const yOf = (string: number) => top + (string - 0.5) * step;
  const left = $derived(page.systems[system]?.left ?? 0);

  const RISKS = { free: '', tight: 'tight', tooFast: 'too fast' } as const;
  const shiftWords = (shift: PlannedShift) =>
    `${shift.jump ? `${shift.jump}, ` : ''}${shift.distanceMm} mm in ${shift.windowMs} ms${RISKS[shift.risk] ? `, ${RISKS[shift.risk]}` : ''}`;
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
  /** Ids of what is drawn when each takes so much room and nothing may overlap; the rest is in the titles. */
  function roomy(lanes: readonly { readonly id: string; readonly at: number; readonly room: number }[]) {
    const drawn = new Set<string>();
    let free = -Infinity;
    for (const { id, at, room } of lanes) {
      if (at < free) continue;
      drawn.add(id);
      free = at + room;
    }
    return drawn;
  }
  const numerals = $derived(
    roomy(
      lanes.hand.map(({ id, span, position }) => ({
        id,
        at: span.x1,
        room: (1 + 1.3 * roman(position).length) * unit,
      })),
    ),
  );
  const labels = $derived(
    roomy(
      lanes.shifts.map(({ id, span, shift }) => ({
        id,
        at: span.x1,
        room: (0.95 * shiftWords(shift).length + 1) * unit,
      })),
    ),
  );
  /** Along the neck's line: to the right, or under it to the left where the music goes back. */
  function arrow(from: number, to: number, y: number): string {
    const barb = Math.sign(from - to) * 0.7 * unit;
    return `M${from} ${y} L${to} ${y} m${barb} ${-0.5 * unit} l${-barb} ${0.5 * unit} l${barb} ${0.5 * unit}`;
  }
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  const beats = (quarters: number) => Number(quarters.toFixed(1));
</script>

<section class="border-base-300 bg-base-100 border-t" aria-label="Rings, shifts and strokes">
  <div class="flex items-center gap-4 px-4 py-1 text-xs">
    <button
      class="hover:bg-base-200 flex shrink-0 cursor-pointer items-center gap-1 rounded px-1 py-0.5 font-semibold whitespace-nowrap"
      aria-expanded={shown}
      onclick={toggle}
      title="Fold or unfold (l)"
    >
      {#if shown}<ChevronDown size={14} aria-hidden="true" />{:else}<ChevronUp
          size={14}
          aria-hidden="true"
        />{/if}
      Rings, shifts, strokes
    </button>
    {#if shown}
      <ul class="flex flex-wrap gap-x-4" data-testid="legato">
        {#each plan.ringsReport.voices as voice (voice.voice)}
          <li>
            Voice {voice.voice}: <span class="font-medium">{percent(voice.legato)}</span>
            sounds{voice.cutQuarters > 0 ? `, ${beats(voice.cutQuarters)} cut` : ''}{voice.overhangQuarters >
            0
              ? `, ${beats(voice.overhangQuarters)} over`
              : ''}
          </li>
        {/each}
      </ul>
      <span class="ml-auto flex items-center gap-2.5 whitespace-nowrap" aria-hidden="true">
        <span><span class="font-serif text-sm">1</span> finger</span>
        <svg width="18" height="8"
          ><line x1="1" y1="4" x2="17" y2="4" stroke="currentColor" stroke-width="4.5" /></svg
        >
        <span class="-ml-2">sounds</span>
        <svg width="18" height="8"
          ><line
            x1="1"
            y1="4"
            x2="17"
            y2="4"
            stroke="currentColor"
            stroke-width="1.6"
            stroke-dasharray="2 2.5"
          /></svg
        >
        <span class="-ml-2">rings over</span>
        <svg width="18" height="8"
          ><rect x="1" y="1.2" width="16" height="5.6" fill="none" stroke="currentColor" /><line
            x1="3"
            y1="7"
            x2="8"
            y2="1"
            stroke="currentColor"
          /><line x1="10" y1="7" x2="15" y2="1" stroke="currentColor" /></svg
        >
        <span class="-ml-2">cut</span>
        <svg width="12" height="8"
          ><path d="M1 1 L11 7 M1 7 L11 1" stroke="currentColor" stroke-width="1.6" /></svg
        >
        <span class="-ml-2">crosses</span>
        <svg width="6" height="8"><circle cx="3" cy="4" r="1.8" fill="currentColor" /></svg>
        <span class="-ml-2">rest stroke</span>
      </span>
    {/if}
  </div>
  {#if shown}
    <div class="px-4 pb-2">
      <div class="rounded-box mx-auto max-w-5xl px-3" style:background="var(--paper)">
        <svg
          viewBox="0 0 {page.width} {height}"
          class="block w-full"
          style:color="var(--paper-ink)"
          role="group"
          aria-label="The strings of this line"
          data-testid="lanes"
        >
          <defs>
            <pattern id="cut-hatch" width={0.8 * unit} height={0.8 * unit} patternUnits="userSpaceOnUse">
              <path
                d="M0 {0.8 * unit} L{0.8 * unit} 0"
                stroke="currentColor"
                stroke-width={0.12 * unit}
                fill="none"
              />
            </pattern>
            <pattern id="window-dots" width={0.7 * unit} height={0.7 * unit} patternUnits="userSpaceOnUse">
              <circle cx={0.35 * unit} cy={0.35 * unit} r={0.11 * unit} fill="currentColor" />
            </pattern>
          </defs>
          {#if box}
            <rect
              x={box.x - 0.35 * unit}
              y="0"
              width={box.width + 0.7 * unit}
              {height}
              rx={0.4 * unit}
              fill="var(--selection)"
              opacity="0.13"
            />
          {/if}
          {#each lanes.shifts as lane (lane.id)}
            <rect
              x={lane.span.x1}
              y={2.6 * unit}
              width={lane.span.x2 - lane.span.x1}
              height={height - 2.9 * unit}
              fill="url(#window-dots)"
              opacity="0.4"
            />
          {/each}
          {#each lanes.hand as lane (lane.id)}
            <line
              x1={lane.span.x1}
              x2={lane.span.x2}
              y1={5.6 * unit}
              y2={5.6 * unit}
              stroke="currentColor"
              stroke-width={0.22 * unit}
            />
            {#if numerals.has(lane.id)}
              <text
                x={lane.span.x1 + 0.2 * unit}
                y={5 * unit}
                font-size={2.1 * unit}
                font-weight="600"
                style:font-family="var(--font-serif)"
                fill="currentColor">{roman(lane.position)}</text
              >
            {/if}
          {/each}
          {#each lanes.shifts as lane (lane.id)}
            {@const words = shiftWords(lane.shift)}
            {@const toRight = lane.span.x1 + words.length * unit > page.width}
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
              <rect
                x={lane.span.x1}
                y={0.4 * unit}
                width={Math.max(lane.span.x2 - lane.span.x1, unit)}
                height={6.2 * unit}
                fill="transparent"
              />
              <path
                d={lane.shift.jump === 'back'
                  ? arrow(lane.span.x2, lane.span.x1, 6.9 * unit)
                  : arrow(lane.span.x1, lane.span.x2, 6.1 * unit)}
                stroke="currentColor"
                stroke-width={0.2 * unit}
                fill="none"
              />
              {#if labels.has(lane.id)}
                <text
                  x={toRight ? lane.span.x2 : lane.span.x1}
                  text-anchor={toRight ? 'end' : 'start'}
                  y={1.9 * unit}
                  font-size={1.7 * unit}
                  font-weight={lane.shift.risk === 'free' ? 400 : 700}
                  style:font-family="var(--font-sans)"
                  fill="currentColor">{words}</text
                >
              {/if}
            </g>
          {/each}
          {#each STRINGS as string, k (string)}
            <line
              x1={left}
              x2={page.systems[system]?.right ?? page.width}
              y1={yOf(string)}
              y2={yOf(string)}
              stroke="currentColor"
              stroke-width={0.06 * unit}
              opacity="0.45"
            />
            <text
              x={left - 0.6 * unit}
              y={yOf(string) + 0.62 * unit}
              text-anchor="end"
              font-size={1.7 * unit}
              style:font-family="var(--font-sans)"
              fill="currentColor">{names[k]?.replace(/\d$/, '')}</text
            >
          {/each}
          <StrokesRow {lanes} top={strokesTop} {unit} {left} {select} title={strokeTitle} />
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
                  stroke-width={0.26 * unit}
                  stroke-dasharray="{0.4 * unit} {0.55 * unit}"
                  data-kind="overhang"
                />
              {/if}
              {#if lane.sounding}
                <line
                  x1={lane.sounding.x1}
                  x2={Math.max(lane.sounding.x2 - 0.25 * unit, lane.sounding.x1 + 0.3 * unit)}
                  y1={y}
                  y2={y}
                  stroke="currentColor"
                  stroke-width={(lane.ring.free ? 0.5 : 0.8) * unit}
                  data-kind="sounding"
                />
              {/if}
              {#if lane.cut}
                <rect
                  x={lane.cut.x1}
                  y={y - 0.6 * unit}
                  width={lane.cut.x2 - lane.cut.x1}
                  height={1.2 * unit}
                  fill="url(#cut-hatch)"
                  stroke="currentColor"
                  stroke-width={0.12 * unit}
                  data-kind="cut"
                />
              {/if}
              {#if lane.begins && lane.sounding}
                <!-- No ring around it: a circled numeral is a string, this is a finger. -->
                <circle cx={lane.sounding.x1} cy={y} r={0.9 * unit} fill="var(--paper)" />
                <text
                  x={lane.sounding.x1}
                  y={y + 0.6 * unit}
                  text-anchor="middle"
                  font-size={1.7 * unit}
                  font-weight="600"
                  style:font-family="var(--font-serif)"
                  fill="currentColor">{lane.finger}</text
                >
              {/if}
            </g>
          {/each}
        </svg>
      </div>
    </div>
  {/if}
</section>
