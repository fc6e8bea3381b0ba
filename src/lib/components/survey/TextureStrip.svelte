<!-- What each voice plays: its figures along the piece, the highest voice on top. -->
<script lang="ts">
  import type { PlannedFigure } from '$core/fingering/right/explain/plannedFigures';
  import { figureReasonText, formulaText, TEXTURE_NAMES } from '$core/messages/figures';
  import type { Measure } from '$core/score/model';

  interface Props {
    figures: readonly PlannedFigure[];
    measures: readonly Measure[];
    select: (bar: number) => void;
  }
  let { figures, measures, select }: Props = $props();

  const end = $derived(
    measures.reduce((ticks, one) => Math.max(ticks, one.startTicks + one.durationTicks), 1),
  );
  const voices = $derived([...new Set(figures.map(({ voice }) => voice))].reverse());
  const barOf = (ticks: number) =>
    Math.max(
      0,
      measures.findLastIndex(({ startTicks }) => startTicks <= ticks),
    );
  /** A figure is drawn until the next one of its voice, so that the row has no holes. */
  const rows = $derived(
    voices.map((voice) => {
      const own = figures.filter((figure) => figure.voice === voice);
      return {
        voice,
        spans: own.map((figure, k) => ({ figure, to: own[k + 1]?.fromTicks ?? end })),
      };
    }),
  );
  const share = (ticks: number) => `${(100 * ticks) / end}%`;
  const named = (figure: PlannedFigure) =>
    figure.formula.length > 0
      ? `${TEXTURE_NAMES[figure.texture]}, ${formulaText(figure.formula)}`
      : TEXTURE_NAMES[figure.texture];
  const title = (figure: PlannedFigure) =>
    `${named(figure)}, from bar ${measures[barOf(figure.fromTicks)]!.number}: ${figureReasonText(figure)}`;
</script>

<div class="flex flex-col gap-1" data-testid="texture-strip">
  {#each rows as { voice, spans } (voice)}
    <div class="flex items-center gap-3">
      <span class="w-16 shrink-0 text-xs">Voice {voice}</span>
      <div class="relative h-8 flex-1">
        {#each spans as { figure, to } (figure.fromMoment)}
          <button
            class="hover:bg-base-200 absolute inset-y-0 cursor-pointer truncate border-t-2 border-l px-1.5 text-left text-xs {figure.rule ===
            'teacher'
              ? 'border-base-content font-semibold'
              : figure.texture === 'mixed'
                ? 'border-base-content/60 border-dashed'
                : 'border-base-content/60'}"
            style:left={share(figure.fromTicks)}
            style:width={share(to - figure.fromTicks)}
            title={title(figure)}
            aria-label={title(figure)}
            onclick={() => select(barOf(figure.fromTicks))}>{named(figure)}</button
          >
        {/each}
      </div>
    </div>
  {/each}
</div>
