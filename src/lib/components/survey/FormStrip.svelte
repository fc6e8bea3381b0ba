<!-- The form as a strip: lines of bars, same music in the same tint with the same letter. -->
<script lang="ts">
  import type { Survey } from '$core/survey/survey';
  import type { Measure } from '$core/score/model';
  import { barsName, kindWords, pretty, tintOf } from './words';

  interface Props {
    survey: Survey;
    measures: readonly Measure[];
    selectedBar: number;
    select: (bar: number) => void;
  }
  let { survey, measures, selectedBar, select }: Props = $props();
  const barsOf = (from: number, to: number) =>
    survey.bars.slice(from, to + 1).map((bar, k) => ({ bar, k: from + k }));
</script>

<ol class="flex flex-wrap gap-x-3 gap-y-4" data-testid="form-strip">
  {#each survey.phrases as phrase (phrase.fromBar)}
    <li aria-label="{phrase.label}, {barsName(measures, phrase.fromBar, phrase.toBar)}">
      <div
        class="rounded-t-field flex items-baseline gap-2 px-2 py-1 text-[color:var(--paper-ink)]"
        style:background={tintOf(phrase.letter)}
      >
        <span class="font-serif text-lg leading-none font-semibold">{phrase.label}</span>
        {#if phrase.upbeat}<span class="text-xs">upbeat</span>{/if}
      </div>
      <div class="border-base-300 rounded-b-field flex border border-t-0">
        {#each barsOf(phrase.fromBar, phrase.toBar) as { bar, k } (bar.uid)}
          <button
            class="border-base-300 hover:bg-base-200 flex w-20 cursor-pointer flex-col gap-0.5 border-l px-1.5 py-1.5 text-left text-xs first:border-l-0 aria-pressed:bg-base-200 aria-pressed:outline-2"
            aria-pressed={k === selectedBar}
            title={kindWords(bar.kind, measures)}
            onclick={() => select(k)}
          >
            <span class="opacity-75"
              >{bar.number}{bar.kind.relation === 'new' ? '' : ' ='}{bar.kind.relation === 'new'
                ? ''
                : measures[bar.kind.like]?.number}{bar.kind.relation === 'varied' ? '′' : ''}</span
            >
            <span class="text-sm font-semibold" class:underline={bar.chordCorrected}
              >{bar.chord ? pretty(bar.chord) : '–'}</span
            >
            <span>{bar.function ?? ''}</span>
            <span class="leading-tight opacity-85">{bar.shape ? pretty(bar.shape) : ''}</span>
          </button>
        {/each}
      </div>
    </li>
  {/each}
</ol>
