<!-- The form as one strip in proportion to the bars: same music in the same tint with the same letter. -->
<script lang="ts">
  import type { Survey } from '$core/survey/survey';
  import type { Measure } from '$core/score/model';
  import { barsName, kindWords, pretty, tintOf } from './words';

  interface Props {
    survey: Survey;
    measures: readonly Measure[];
    selectedBar: number;
    select: (bar: number) => void;
    open: (bar: number) => void;
  }
  let { survey, measures, selectedBar, select, open }: Props = $props();

  const end = $derived(
    measures.reduce((ticks, one) => Math.max(ticks, one.startTicks + one.durationTicks), 1),
  );
  const share = (ticks: number) => (100 * ticks) / end;
  let width = $state(0);
  /** A number needs so many pixels, and a chord's name. */
  const FOR_NUMBER = 26;
  const FOR_CHORD = 38;
  const barPixels = $derived(width / Math.max(1, measures.length));
  const everyNth = $derived([1, 2, 4, 8, 16].find((n) => n * barPixels >= FOR_NUMBER) ?? 32);
  const letterOf = $derived(
    survey.bars.map(
      (_, k) => survey.phrases.find((one) => k >= one.fromBar && k <= one.toBar)?.letter ?? 'A',
    ),
  );
  const relation = (k: number) => {
    const { kind } = survey.bars[k]!;
    return kind.relation === 'new'
      ? ''
      : `=${measures[kind.like]!.number}${kind.relation === 'varied' ? '′' : ''}`;
  };
</script>

<div class="flex gap-3" data-testid="form-strip">
  <div class="flex w-16 shrink-0 flex-col text-xs leading-none">
    <span class="h-8 pt-2.5">Form</span>
    <span class="h-9 pt-3">Bars</span>
    {#if barPixels >= FOR_CHORD}<span class="h-6 pt-1.5">Chords</span>{/if}
  </div>
  <div class="min-w-0 flex-1" bind:clientWidth={width}>
    <ol class="relative h-8">
      {#each survey.phrases as phrase (phrase.fromBar)}
        {@const from = measures[phrase.fromBar]!.startTicks}
        {@const last = measures[phrase.toBar]!}
        <li
          class="absolute inset-y-0 overflow-hidden border-l-2 border-[color:var(--paper)] px-2 py-1 whitespace-nowrap text-[color:var(--paper-ink)]"
          style:background={tintOf(phrase.letter)}
          style:left="{share(from)}%"
          style:width="{share(last.startTicks + last.durationTicks - from)}%"
          aria-label="{phrase.label}, {barsName(measures, phrase.fromBar, phrase.toBar)}"
        >
          <span class="font-serif text-lg leading-none font-semibold">{phrase.label}</span>
          {#if phrase.upbeat}<span class="text-xs">upbeat</span>{/if}
        </li>
      {/each}
    </ol>
    <div class="relative h-9" role="group" aria-label="Bars">
      {#each survey.bars as bar, k (bar.uid)}
        {@const measure = measures[k]!}
        <button
          class="absolute inset-y-0 cursor-pointer overflow-hidden border-l border-[color:var(--paper)] px-0.5 text-left text-xs leading-tight text-[color:var(--paper-ink)] aria-pressed:z-10 aria-pressed:outline-2 aria-pressed:outline-[color:var(--selection)]"
          style:background="color-mix(in oklab, {tintOf(letterOf[k]!)}
          {bar.kind.relation === 'new' ? 45 : 80}%, var(--paper))"
          style:left="{share(measure.startTicks)}%"
          style:width="{share(measure.durationTicks)}%"
          aria-pressed={k === selectedBar}
          aria-label="bar {bar.number}, {kindWords(bar.kind, measures)}{bar.chord
            ? `, ${pretty(bar.chord)}`
            : ''}"
          title="Bar {bar.number}: {kindWords(bar.kind, measures)}; twice opens it on the desk"
          onclick={() => select(k)}
          ondblclick={() => open(k)}
        >
          {#if k % everyNth === 0}<span class="block">{bar.number}</span>{/if}
          {#if barPixels >= FOR_NUMBER}<span class="block opacity-75">{relation(k)}</span>{/if}
        </button>
      {/each}
    </div>
    {#if barPixels >= FOR_CHORD}
      <div class="relative h-6 text-xs font-semibold">
        {#each survey.bars as bar, k (bar.uid)}
          <span
            class="absolute inset-y-0 truncate px-0.5 pt-1"
            class:underline={bar.chordCorrected}
            style:left="{share(measures[k]!.startTicks)}%"
            style:width="{share(measures[k]!.durationTicks)}%">{bar.chord ? pretty(bar.chord) : '–'}</span
          >
        {/each}
      </div>
    {/if}
  </div>
</div>
