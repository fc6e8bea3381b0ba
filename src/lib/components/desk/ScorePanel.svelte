<!-- What the file is taken to be, what was corrected in it, and its versions. -->
<script lang="ts">
  import { TUNINGS } from '$core/instrument/tuning';
  import { PIECE } from '$core/fingering/edition/attributes';
  import { midiOf } from '$core/music/pitch';
  import { assumptionText, noticeText } from '$core/messages/en';
  import type { Score } from '$core/score/model';
  import type { Desk } from '$lib/client/desk/desk.svelte';
  import type { DeskOpening } from '$lib/client/desk/stored';
  import { correctionWords, placeWords, tuningWords } from './corrections';
  import CarriedPanel from './CarriedPanel.svelte';
  import MarkStylePanel from './MarkStylePanel.svelte';
  import TransposePanel from './TransposePanel.svelte';
  import VersionPanel from './VersionPanel.svelte';

  interface Props {
    desk: Desk;
    score: Score;
    opening: DeskOpening;
  }
  let { desk, score, opening }: Props = $props();

  const tempo = $derived(Math.round(score.tempos[0]?.quartersPerMinute ?? 0));
  /** From the file's pitches to the sounding ones, corrected or as it was read. */
  const shift = $derived(score.notes[0] ? score.notes[0].soundingMidi - midiOf(score.notes[0].pitch) : 0);
  const slurs = $derived(desk.session.valueOf(PIECE, 'slurs'));
  const asksSlurs = $derived(score.notices.some((notice) => notice.code === 'ambiguousSlurs'));

  const firstNote = (bar: number) => score.notes.find((note) => note.measureIndex === bar)?.uid;

  const NAMES = { tempo: 'tempo', capo: 'capo', octave: 'sounding pitch' } as const;

  function setNumber(attribute: keyof typeof NAMES, text: string, least: number, most: number) {
    const value = Number(text);
    if (text.trim() === '') return desk.set(PIECE, attribute, null);
    if (!Number.isInteger(value) || value < least || value > most) {
      desk.notice = `The ${NAMES[attribute]} is a whole number from ${least} to ${most}; it was left as it is.`;
      return;
    }
    desk.set(PIECE, attribute, value);
  }
</script>

<div class="contents text-sm">
  <CarriedPanel {desk} {score} {opening} />
</div>

<section aria-labelledby="piece-heading" class="text-sm">
  <h2 id="piece-heading" class="mb-2 font-semibold">The piece</h2>
  <div class="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2">
    <label for="tuning">Strings</label>
    <select
      id="tuning"
      class="select select-sm w-full"
      value={score.tuningId}
      onchange={(event) => desk.set(PIECE, 'tuning', event.currentTarget.value)}
    >
      {#each TUNINGS as tuning (tuning.id)}
        <option value={tuning.id}>{tuningWords(tuning.id)}</option>
      {/each}
      {#if score.tuningId.startsWith('custom:')}
        <option value={score.tuningId}>{tuningWords(score.tuningId)}</option>
      {/if}
    </select>
    <label for="capo">Capo at fret</label>
    <input
      id="capo"
      class="input input-sm w-20"
      inputmode="numeric"
      value={score.capo}
      onchange={(event) => setNumber('capo', event.currentTarget.value, 0, 12)}
    />
    <label for="tempo">Tempo ♩ =</label>
    <input
      id="tempo"
      class="input input-sm w-20"
      inputmode="numeric"
      value={tempo}
      onchange={(event) => setNumber('tempo', event.currentTarget.value, 20, 400)}
    />
    <label for="octave" title="From the written pitches to the sounding ones">Sounds at</label>
    <span class="flex items-center gap-2">
      <input
        id="octave"
        class="input input-sm w-20"
        inputmode="numeric"
        value={shift}
        onchange={(event) => setNumber('octave', event.currentTarget.value, -24, 24)}
      />
      semitones
    </span>
  </div>
  <TransposePanel {desk} {score} />
  {#if asksSlurs || slurs !== null}
    <fieldset class="mt-3">
      <legend class="mb-1">Slurs over three to five notes</legend>
      {#each [['ligado', 'left hand plays them'], ['phrase', 'phrase marks']] as [value, words] (value)}
        <label class="mr-4 inline-flex items-center gap-1.5">
          <input
            type="radio"
            class="radio radio-xs"
            name="slurs"
            checked={slurs === value}
            onchange={() => desk.set(PIECE, 'slurs', value as 'ligado' | 'phrase')}
          />
          {words}
        </label>
      {/each}
    </fieldset>
  {/if}
</section>

<MarkStylePanel {desk} />

<section aria-labelledby="notices-heading" class="text-sm">
  <h2 id="notices-heading" class="mb-1 font-semibold">How the file was read</h2>
  <ul class="flex flex-col gap-1 leading-snug" data-testid="reading">
    {#each score.notices as notice, k (k)}
      <li>
        <button
          class="hover:bg-base-200 cursor-pointer text-left"
          onclick={() => desk.selection.select(firstNote(notice.measureIndex) ?? '')}
        >
          <span aria-hidden="true" class="text-warning font-semibold">!</span>
          {noticeText(notice)}
        </button>
      </li>
    {/each}
    {#each score.assumptions as assumption, k (k)}
      <li class="opacity-85">{assumptionText(assumption)}</li>
    {/each}
  </ul>
</section>

<section aria-labelledby="corrections-heading" class="text-sm">
  <h2 id="corrections-heading" class="mb-1 font-semibold">Corrections</h2>
  {#if desk.session.corrections.length === 0}
    <p class="leading-snug">
      None. The file itself is never changed: <kbd class="kbd kbd-xs">Shift e</kbd> turns corrections on, Alt
      and the arrows correct pitch and length of the selected note,
      <kbd class="kbd kbd-xs">?</kbd> lists the rest.
    </p>
  {:else}
    <ul class="flex flex-col" data-testid="corrections">
      {#each desk.session.corrections as correction (correction.target + correction.attribute)}
        <li class="border-base-300 flex items-center gap-2 border-t py-1">
          <button class="cursor-pointer text-left" onclick={() => desk.selection.select(correction.target)}>
            <span class="font-medium">{placeWords(score, correction.target)}:</span>
            {correctionWords(correction)}
          </button>
          <button class="btn btn-ghost btn-xs ml-auto" onclick={() => desk.clear(correction)}
            >take back</button
          >
        </li>
      {/each}
    </ul>
  {/if}
</section>

<VersionPanel {opening} />
