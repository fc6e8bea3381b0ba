<!-- What is marked: what it costs, and what can be done to all of it. -->
<script lang="ts">
  import { points } from '$core/messages/units';
  import { LEFT_SCHOOL_IDS, type LeftSchoolId } from '$core/fingering/left/rules/schools';
  import { RIGHT_SCHOOL_IDS, type RightSchoolId } from '$core/fingering/right/rules/schools';
  import { FORMULAS } from '$core/fingering/formulas/formulas';
  import { formulaName, RIGHT_SCHOOL_NAMES } from '$core/messages/strokes';
  import { roman } from '$core/music/roman';
  import { barsOf } from '$core/score/range';
  import type { Score } from '$core/score/model';
  import type { Desk } from '$lib/client/desk/desk.svelte';
  import { copyToTwins, inkRange, pencilRange, planAnew } from '$lib/client/desk/ranges';
  import type { RangeCosts } from '$workers/plannerService';
  import { SCHOOL_NAMES } from './lensWords';

  interface Props {
    desk: Desk;
    score: Score;
  }
  let { desk, score }: Props = $props();

  const POSITIONS = [1, 2, 3, 4, 5, 7, 9, 12] as const;
  const range = $derived(desk.selection.range!);
  const notes = $derived(desk.selection.ranged.length);
  const bars = $derived(barsOf(score, range));
  const barWords = $derived.by(() => {
    const [first, last] = [score.measures[bars.first]!.number, score.measures[bars.last]!.number];
    return first === last ? `bar ${first}` : `bars ${first} to ${last}`;
  });

  let costs = $state.raw<RangeCosts | null>(null);
  $effect(() => {
    const uids = desk.selection.ranged.map(({ uid }) => uid);
    void desk.planning.plan;
    costs = null;
    // A mark that is still growing is asked about once.
    const timer = setTimeout(
      () => void desk.planning.rangeCosts(uids).then((answer) => (costs = answer)),
      250,
    );
    return () => clearTimeout(timer);
  });
  const effortHere = $derived(
    (desk.planning.plan?.effortByBar ?? [])
      .slice(bars.first, bars.last + 1)
      .reduce((sum, { left, right }) => sum + left + right, 0),
  );

  let school = $state<LeftSchoolId | ''>('');
  let rightSchool = $state<RightSchoolId | ''>('');
  let position = $state(0);
  /** Over the moments of what is marked. */
  function byFormula(id: string) {
    const moments = (desk.planning.plan?.notes ?? [])
      .filter(({ uid }) => desk.selection.rangedUids.has(uid))
      .map(({ momentIndex }) => momentIndex);
    if (id && moments.length > 0) void desk.playFormula(id, Math.min(...moments), Math.max(...moments));
  }
  const again = () =>
    planAnew(desk, {
      school: school || null,
      rightSchool: rightSchool || null,
      position: position || null,
    });
</script>

<section
  aria-labelledby="range-heading"
  class="border-base-content/40 rounded-box border p-3 text-sm"
  data-testid="range"
>
  <div class="flex items-baseline gap-2">
    <h2 id="range-heading" class="font-semibold">
      Marked: {barWords}, {notes}
      {notes === 1 ? 'note' : 'notes'}{range.voice === null ? '' : `, voice ${range.voice}`}
    </h2>
    <button
      class="btn btn-ghost btn-xs ml-auto"
      aria-label="Mark nothing"
      title="Mark nothing (Esc)"
      onclick={() => desk.selection.mark(null)}>✕</button
    >
  </div>
  <p class="text-xs" data-testid="range-cost">
    Effort of {bars.first === bars.last ? 'its bar' : 'its bars'}
    {points(effortHere)}{costs
      ? costs.stands - costs.best > 0
        ? `; its ink costs ${points(costs.stands - costs.best)} more than the best`
        : '; nothing easier exists around the other ink'
      : ' …'}.
  </p>
  <div class="mt-2 flex flex-wrap gap-1">
    <button class="btn btn-xs" onclick={() => inkRange(desk)}>Ink <kbd class="kbd kbd-xs">Enter</kbd></button>
    <button class="btn btn-xs" onclick={() => pencilRange(desk)}
      >Pencil <kbd class="kbd kbd-xs">⌫</kbd></button
    >
    <button class="btn btn-xs" onclick={() => copyToTwins(desk)}
      >To the same music <kbd class="kbd kbd-xs">=</kbd></button
    >
  </div>
  <div class="mt-2 grid grid-cols-3 gap-1 text-xs">
    <label class="flex min-w-0 flex-col gap-0.5">
      Left
      <select class="select select-xs w-full" bind:value={school}>
        <option value="">as it is</option>
        {#each LEFT_SCHOOL_IDS as id (id)}<option value={id}>{SCHOOL_NAMES[id]}</option>{/each}
      </select>
    </label>
    <label class="flex min-w-0 flex-col gap-0.5">
      Right
      <select class="select select-xs w-full" bind:value={rightSchool}>
        <option value="">as it is</option>
        {#each RIGHT_SCHOOL_IDS as id (id)}<option value={id}>{RIGHT_SCHOOL_NAMES[id]}</option>{/each}
      </select>
    </label>
    <label class="flex min-w-0 flex-col gap-0.5">
      Position
      <select class="select select-xs w-full" bind:value={position}>
        <option value={0}>free</option>
        {#each POSITIONS as fret (fret)}<option value={fret}>{roman(fret)}</option>{/each}
      </select>
    </label>
  </div>
  <div class="mt-2 flex items-center gap-1 text-xs">
    <button class="btn btn-xs" onclick={again}>Plan anew and ink</button>
    <select
      class="select select-xs ml-auto w-32"
      aria-label="Play it by a formula"
      value=""
      onchange={(event) => byFormula(event.currentTarget.value)}
    >
      <option value="">a formula …</option>
      {#each FORMULAS as { id } (id)}<option value={id}>{formulaName(id)}</option>{/each}
    </select>
  </div>
</section>
