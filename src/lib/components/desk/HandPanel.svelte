<!-- Whose hand, which school; the changes of position; and the script of the hand, said step by step. -->
<script lang="ts">
  import { barAndBeat } from '$core/messages/units';
  import { PIECE } from '$core/fingering/edition/attributes';
  import { LEFT_SCHOOL_IDS } from '$core/fingering/left/rules/schools';
  import { asBlocks, type HandAction } from '$core/fingering/left/explain/handScript';
  import type { FingeringPlan } from '$core/fingering/report/plan';
  import { PLAYERS } from '$core/instrument/hands';
  import { actionText } from '$core/messages/hand';
  import { roman } from '$core/music/roman';
  import { placeOf } from '$core/score/places';
  import type { Score } from '$core/score/model';
  import type { Desk } from '$lib/client/desk/desk.svelte';
  import ChoiceRow from './ChoiceRow.svelte';
  import { handName } from '$core/messages/handNames';
  import { SCHOOL_NAMES } from './lensWords';

  interface Props {
    desk: Desk;
    score: Score;
    plan: FingeringPlan;
  }
  let { desk, score, plan }: Props = $props();

  let blocks = $state(false);
  $effect(() => {
    void plan;
    if (!desk.planning.script) desk.planning.askScripts();
  });

  const playerName = (id: string) => {
    const { scaleLengthMm } = PLAYERS.find(({ hand }) => hand.id === id)!.fretboard;
    return `${handName(id)}, ${scaleLengthMm} mm`;
  };
  const place = (ticks: number) => placeOf(score, ticks);
  interface Line {
    readonly at: string;
    readonly momentIndex: number;
    readonly actions: readonly HandAction[];
  }
  const lines = $derived.by((): readonly Line[] => {
    const script = desk.planning.script ?? [];
    if (blocks)
      return asBlocks(script).map(({ ticks, momentIndex, actions }) => ({
        at: placeText(ticks),
        momentIndex,
        actions,
      }));
    const found: { at: string; momentIndex: number; actions: HandAction[] }[] = [];
    for (const action of script) {
      const at = placeText(action.ticks);
      if (found.at(-1)?.at === at) found.at(-1)!.actions.push(action);
      else found.push({ at, momentIndex: action.momentIndex, actions: [action] });
    }
    return found;
  });

  const placeText = (ticks: number): string => barAndBeat(place(ticks));
  const uidAt = (momentIndex: number) =>
    plan.notes.find((note) => note.momentIndex === momentIndex)?.uid ?? '';
  const WORDS = { free: 'free', tight: 'tight', tooFast: 'too fast' } as const;
  /** Lines around the selection: the script of a whole piece is long. */
  const AROUND = 14;
  const here = $derived(
    Math.max(
      0,
      lines.findLastIndex((line) => line.momentIndex <= (desk.selection.note?.momentIndex ?? 0)),
    ),
  );
  const shownLines = $derived(lines.slice(Math.max(0, here - 2), here + AROUND));
</script>

<section aria-labelledby="lens-heading" class="text-sm">
  <h2 id="lens-heading" class="mb-2 font-semibold">Planned for</h2>
  <div class="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2">
    <ChoiceRow
      label="Hand"
      choices={PLAYERS.map(({ hand }) => hand.id)}
      nameOf={playerName}
      value={desk.session.lens.player.hand.id}
      choose={(id) => desk.set(PIECE, 'hand', id)}
    />
    <ChoiceRow
      label="School"
      choices={LEFT_SCHOOL_IDS}
      nameOf={(id) => SCHOOL_NAMES[id]}
      value={desk.session.lens.school}
      choose={(id) => desk.set(PIECE, 'school', id)}
    />
  </div>
</section>

<section aria-labelledby="shifts-heading" class="text-sm">
  <h2 id="shifts-heading" class="mb-1 font-semibold">Shifts</h2>
  {#if plan.shifts.length === 0}
    <p>The hand stays in one position.</p>
  {:else}
    <ul class="flex max-h-44 flex-col overflow-y-auto" data-testid="shifts">
      {#each plan.shifts as shift (`${shift.fromUid} ${shift.toUid}`)}
        <li class="border-base-300 border-t">
          <button
            class="hover:bg-base-200 grid w-full cursor-pointer grid-cols-[6.6rem_1fr_auto] gap-x-2 py-1 text-left"
            onclick={() => desk.selection.select(shift.toUid)}
          >
            <span class="whitespace-nowrap tabular-nums"
              >{placeText(shift.jump ? shift.leavesTicks : shift.arrivesTicks)}</span
            >
            <span
              >{shift.jump ? `${shift.jump}, ` : ''}{roman(shift.fromPosition)} → {roman(shift.toPosition)}, {shift.distanceMm}
              mm
              <span class="block text-xs opacity-80"
                >{shift.windowMs} ms there, {shift.neededMs} needed; up to ♩&nbsp;=&nbsp;{shift.worksUpToBpm}</span
              ></span
            >
            <span class={shift.risk === 'free' ? '' : 'font-semibold'}>{WORDS[shift.risk]}</span>
          </button>
        </li>
      {/each}
    </ul>
  {/if}
</section>

<section aria-labelledby="script-heading" class="text-sm">
  <div class="mb-1 flex items-center">
    <h2 id="script-heading" class="font-semibold">Script of the hand</h2>
    <label class="ml-auto inline-flex items-center gap-1.5 text-xs">
      <input type="checkbox" class="checkbox checkbox-xs" bind:checked={blocks} /> as blocks
    </label>
  </div>
  {#if !desk.planning.script}
    <p role="status">Writing the script …</p>
  {:else}
    <ol class="flex flex-col" data-testid="script">
      {#each shownLines as line (line.at + line.momentIndex)}
        <li class="border-base-300 border-t">
          <button
            class="hover:bg-base-200 grid w-full cursor-pointer grid-cols-[6.6rem_1fr] gap-x-2 py-1 text-left leading-snug"
            onclick={() => desk.selection.select(uidAt(line.momentIndex))}
          >
            <span class="whitespace-nowrap tabular-nums">{line.at}</span>
            <span>
              {#each line.actions as action, k (k)}
                <span class="block {action.kind === 'lift' ? 'opacity-75' : ''}"
                  >{actionText(action, place)}</span
                >
              {/each}
            </span>
          </button>
        </li>
      {/each}
    </ol>
  {/if}
</section>

<p class="text-xs leading-snug opacity-85">
  Reaches and times of ready-made hands are estimates; a student’s own hand decides. Start stretches high on
  the neck, pinch lightly and release, and stop at pain, numbness or tingling: a qualified health professional
  can help.
</p>
