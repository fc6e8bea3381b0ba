<!-- The selected note: what it is, how it stands, and every other choice with its exact price. -->
<script lang="ts">
  import { points } from '$core/messages/units';
  import type { LeftChoice, NoteChoices, PlannedNote, RightChoice } from '$core/fingering/report/plan';
  import type { SlurSuggestion } from '$core/fingering/slurs/suggest';
  import { otherStringsText, slurSuggestionText, strokeReasonText } from '$core/messages/strokes';
  import type { Pluck, PrintedMarks } from '$core/score/model';
  import type { InkMarks } from '$core/fingering/problem/ink';
  import { roman } from '$core/music/roman';
  import { choiceReasonText, type PlaceOf } from '$core/messages/hand';
  import { departuresOf } from './departures';
  import { STRING_KEYS } from '$lib/client/desk/keys/deciding';

  interface Props {
    note: PlannedNote;
    name: string;
    bar: string;
    ink: InkMarks;
    choices: NoteChoices | null;
    /** What the file has printed at the note. */
    printed: PrintedMarks | null;
    place: PlaceOf;
    bpm: number;
    choose: (finger: number, string: number) => void;
    pluck: (letter: Pluck) => void;
    /** A slur that would cure something here. */
    slur: SlurSuggestion | null;
    acceptSlur: () => void;
    refuseSlur: () => void;
  }
  let {
    note,
    name,
    bar,
    ink,
    choices,
    printed,
    place,
    bpm,
    choose,
    pluck,
    slur,
    acceptSlur,
    refuseSlur,
  }: Props = $props();

  const SHOWN = 8;
  /** So many are told with their reasons; the others are a line each, their reasons behind it. */
  const TOLD = 3;
  const inked = $derived(ink.finger !== null || ink.string !== null || ink.pluck !== null);
  /** What is far from the best is not worked out to the end: its price says what it is at least. */
  const effort = ({ extraCost, exact }: LeftChoice | RightChoice, rank: number) => {
    if (rank === 0) return 'best';
    const atLeast = choices?.exact && !exact ? '≥ ' : '';
    return extraCost === 0 && atLeast === '' ? 'as good' : `${atLeast}+${points(extraCost)}`;
  };
  const letterWords = ({ words, strings }: RightChoice): string =>
    [...words.map((word) => strokeReasonText(word, place)), otherStringsText(strings, place)]
      .filter((text) => text !== '')
      .join('; ');

  /** What goes against a choice; for the best one: what speaks for it against the next. */
  function reasonText(choice: LeftChoice, rank: number): string {
    if (rank === 0 && choice.strokeWords.length > 0)
      return `this string spares the right hand; the next choice: ${strokeReasonText(choice.strokeWords[0]!, place)}`;
    const words = [
      ...choice.words.map((word) => choiceReasonText(word, place, bpm)),
      ...choice.strokeWords.map((word) => strokeReasonText(word, place)),
    ];
    const [first] = choice.words;
    if (rank > 0 || !first) return words.join('; ');
    return first.code === 'fingerHolds'
      ? `${choice.finger} instead of ${first.finger}: ${words[0]}`
      : `the next choice: ${words[0]}`;
  }
  const departures = $derived(departuresOf(printed, note, choices, { left: reasonText, right: letterWords }));
  const positionOf = (choice: LeftChoice) =>
    choice.finger === 0 ? 'open' : roman(Math.max(1, choice.fret - choice.finger + 1));
</script>

<section aria-labelledby="note-heading" class="flex flex-col gap-3">
  <div class="flex items-baseline gap-2">
    <h2 id="note-heading" class="font-serif text-2xl font-semibold">{name}</h2>
    <span class="text-sm">bar {bar}</span>
    <span
      class="ml-auto rounded-sm px-2 py-0.5 text-xs {inked
        ? 'bg-base-content text-base-100 font-semibold'
        : 'border-base-content/50 border border-dashed'}"
      data-testid="note-state">{inked ? 'ink' : 'pencil'}</span
    >
  </div>

  {#each departures as words (words)}
    <p class="text-sm leading-snug" data-testid="departure">{words}</p>
  {/each}

  <!-- Letters before the table: they are one row and stay in sight however much the left hand has to say. -->
  {#if (choices?.right.length ?? 0) > 0}
    <div>
      <p class="mb-1 text-xs">Right hand{choices!.exact ? '' : ', on these strings'}</p>
      <div class="flex gap-1.5" data-testid="letters">
        {#each choices!.right as choice, rank (choice.pluck)}
          <button
            class="border-base-300 flex flex-1 cursor-pointer items-baseline justify-center gap-1.5 rounded border px-1.5 py-0.5 {choice.pluck ===
            note.pluck
              ? 'bg-base-200 border-base-content/60'
              : ''}"
            aria-pressed={choice.pluck === note.pluck}
            onclick={() => pluck(choice.pluck)}
          >
            <span class="font-serif text-lg leading-none italic">{choice.pluck}</span>
            <span class="text-xs tabular-nums">{effort(choice, rank)}</span>
          </button>
        {/each}
      </div>
    </div>
  {:else if choices}
    <p class="text-xs">Right hand: slurred, not plucked.</p>
  {/if}

  <table class="w-full text-sm" data-testid="candidates" data-exact={choices?.exact ? 'yes' : undefined}>
    <caption class="mb-1 text-left text-xs">Left hand: finger, string, position, extra effort</caption>
    <tbody>
      {#each (choices?.left ?? []).slice(0, SHOWN) as choice, rank (`${choice.finger}-${choice.string}`)}
        {@const current = choice.finger === note.finger && choice.string === note.string}
        <tr class="border-base-300 border-t align-top {current ? 'bg-base-200' : ''}">
          <td class="p-0" colspan="4">
            <button
              class="hover:bg-base-200 grid w-full cursor-pointer grid-cols-[1.6rem_1.9rem_2.6rem_1fr] items-baseline gap-x-1 px-1.5 text-left {rank <
              TOLD
                ? 'py-1'
                : 'py-px'}"
              aria-pressed={current}
              aria-label="finger {choice.finger}, string {choice.string}, {effort(choice, rank)}"
              title={rank < TOLD ? undefined : reasonText(choice, rank)}
              onclick={() => choose(choice.finger, choice.string)}
            >
              <span class="font-serif text-lg leading-none font-semibold">{choice.finger}</span>
              <span
                class="border-base-content/70 inline-grid size-5 place-items-center self-center rounded-full border text-xs"
                >{choice.string}</span
              >
              <span>{positionOf(choice)}</span>
              <span class="text-right tabular-nums {rank === 0 ? 'font-semibold' : ''}"
                >{effort(choice, rank)}</span
              >
              {#if rank < TOLD && choice.words.length + choice.strokeWords.length > 0}
                <span class="col-span-4 text-xs leading-snug opacity-80">{reasonText(choice, rank)}</span>
              {/if}
            </button>
          </td>
        </tr>
      {:else}
        <tr
          ><td class="py-2 text-xs"
            >{choices
              ? 'No hand can play this note with the others here; the findings offer ways out.'
              : 'Working out the prices …'}</td
          ></tr
        >
      {/each}
    </tbody>
  </table>

  {#if slur}
    <div class="border-base-content/40 rounded border border-dashed p-2 text-sm" data-testid="slur-here">
      <p class="leading-snug">A slur here {slurSuggestionText(slur)}.</p>
      <div class="mt-1.5 flex gap-1.5">
        <button class="btn btn-xs" onclick={acceptSlur}>Slur <kbd class="kbd kbd-xs">s</kbd></button>
        <button class="btn btn-xs btn-ghost" onclick={refuseSlur}>No <kbd class="kbd kbd-xs">x</kbd></button>
      </div>
    </div>
  {/if}

  {#each (choices?.right ?? [])
    .filter((choice) => letterWords(choice) !== '')
    .slice(0, 3) as choice (choice.pluck)}
    <p class="text-xs leading-snug opacity-80">
      <span class="font-serif italic">{choice.pluck}</span>: {letterWords(choice)}
    </p>
  {/each}

  <p class="text-xs leading-relaxed opacity-80">
    <kbd class="kbd kbd-xs">0</kbd>–<kbd class="kbd kbd-xs">4</kbd> finger,
    <kbd class="kbd kbd-xs">{STRING_KEYS[0]}</kbd>…<kbd class="kbd kbd-xs">{STRING_KEYS[5]}</kbd>
    string, <kbd class="kbd kbd-xs">p</kbd> <kbd class="kbd kbd-xs">i</kbd> <kbd class="kbd kbd-xs">m</kbd>
    <kbd class="kbd kbd-xs">a</kbd>, <kbd class="kbd kbd-xs">Enter</kbd> ink, <kbd class="kbd kbd-xs">⌫</kbd> pencil
  </p>
</section>
