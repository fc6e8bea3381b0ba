<!-- Under the score, aligned with its notes: where the hand stands and moves, and what each string really sounds. -->
<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import ChevronUp from '@lucide/svelte/icons/chevron-up';
  import type { EngravedPage } from '$core/engraving/page';
  import { systemLanes } from '$core/engraving/lanes';
  import type { FingeringPlan } from '$core/fingering/report/plan';
  import type { PlannedStroke } from '$core/fingering/right/explain/report';
  import { strokeWords } from '$core/messages/strokes';
  import type { Score } from '$core/score/model';
  import { FIGURE_ROW, NECK, NECK_WORDS, RING_ROW, STROKES_ROW } from './lanesLayout';
  import Neckline from './Neckline.svelte';
  import RingsRow from './RingsRow.svelte';
  import StrokesRow from './StrokesRow.svelte';

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

  type Part = 'neckline' | 'rings' | 'strokes';
  const PARTS = [
    ['neckline', 'Neckline'],
    ['rings', 'Rings'],
    ['strokes', 'Strokes'],
  ] as const satisfies readonly (readonly [Part, string])[];
  let folded = $state<readonly Part[]>([]);
  const isOpen = (part: Part) => !folded.includes(part);
  const fold = (part: Part) =>
    (folded = folded.includes(part) ? folded.filter((one) => one !== part) : [...folded, part]);

  const box = $derived(page.notes.find((note) => note.uid === selectedUid) ?? page.notes[0] ?? null);
  const system = $derived(box?.system ?? 0);
  const lanes = $derived(systemLanes(page, score, plan, system));

  // In layout units, so that everything stands under its note at any width.
  const unit = $derived(page.staffSpace);
  const left = $derived(page.systems[system]?.left ?? 0);
  const right = $derived(page.systems[system]?.right ?? page.width);
  const figureRows = $derived(
    1 +
      Math.max(0, ...lanes.figures.filter(({ figure }) => figure.rule !== 'withUpper').map(({ row }) => row)),
  );
  const heightOf = $derived({
    neckline: isOpen('neckline') ? NECK + NECK_WORDS + 0.25 : 0,
    rings: isOpen('rings') ? 6 * RING_ROW + 0.25 : 0,
    strokes: isOpen('strokes') ? STROKES_ROW + FIGURE_ROW * figureRows : 0,
  });
  const height = $derived((heightOf.neckline + heightOf.rings + heightOf.strokes) * unit);
  const strokeTitle = (stroke: PlannedStroke) => strokeWords(stroke).join('; ');

  const beats = (quarters: number) => {
    const count = Number(quarters.toFixed(1));
    return `${count} ${count === 1 ? 'beat' : 'beats'}`;
  };
  type Sound = Pick<FingeringPlan['ringsReport']['voices'][number], 'cutQuarters' | 'overhangQuarters'>;
  /** "2 beats cut, 3 beats ring on". */
  function soundWords({ cutQuarters, overhangQuarters }: Sound): string {
    const cut = cutQuarters > 0 ? `${beats(cutQuarters)} cut` : 'nothing cut';
    return overhangQuarters > 0 ? `${cut}, ${beats(overhangQuarters)} ring on` : cut;
  }
  const voices = $derived(plan.ringsReport.voices);
  const total = $derived<Sound>({
    cutQuarters: voices.reduce((sum, one) => sum + one.cutQuarters, 0),
    overhangQuarters: voices.reduce((sum, one) => sum + one.overhangQuarters, 0),
  });
  const byVoice = $derived(voices.map((one) => `voice ${one.voice}: ${soundWords(one)}`).join('; '));
</script>

<section class="border-base-300 bg-base-100 border-t" aria-label="Neckline, rings and strokes">
  <div class="flex items-center gap-4 px-4 py-0.5 text-xs">
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
      Hands
    </button>
    {#if shown}
      <div role="group" aria-label="What is shown" class="flex gap-1">
        {#each PARTS as [part, name] (part)}
          <button
            class="hover:bg-base-200 cursor-pointer rounded px-1.5 py-0.5"
            class:opacity-55={!isOpen(part)}
            aria-pressed={isOpen(part)}
            onclick={() => fold(part)}>{name}</button
          >
        {/each}
      </div>
      <span class="whitespace-nowrap" title={byVoice} data-testid="legato">{soundWords(total)}</span>
      <span class="ml-auto flex items-center gap-2.5 whitespace-nowrap" aria-hidden="true">
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
    <div class="px-4 pb-1">
      <div class="rounded-box mx-auto max-w-5xl px-3" style:background="var(--paper)">
        <svg
          viewBox="0 0 {page.width} {height}"
          class="block w-full"
          style:color="var(--paper-ink)"
          role="group"
          aria-label="The hands in this line of the score"
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
          {#if isOpen('neckline')}
            <Neckline {lanes} top={0} {unit} {left} {right} {select} />
          {/if}
          {#if isOpen('rings')}
            <RingsRow {lanes} top={heightOf.neckline * unit} {unit} {left} {right} />
          {/if}
          {#if isOpen('strokes')}
            <StrokesRow
              {lanes}
              top={(heightOf.neckline + heightOf.rings) * unit}
              {unit}
              {left}
              {select}
              title={strokeTitle}
            />
          {/if}
        </svg>
      </div>
    </div>
  {/if}
</section>
