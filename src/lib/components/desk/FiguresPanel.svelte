<!-- The textures of the piece: the figure of the selected note, which can be named otherwise, and all of them. -->
<script lang="ts">
  import { TEXTURE_IDS, type Texture } from '$core/figures/texture';
  import type { FingeringPlan } from '$core/fingering/report/plan';
  import type { PlannedFigure } from '$core/fingering/right/explain/plannedFigures';
  import { figureReasonText, formulaText, TEXTURE_NAMES } from '$core/messages/figures';
  import { EFFECT_NAMES } from '$core/messages/strokes';
  import type { Score } from '$core/score/model';
  import type { Desk } from '$lib/client/desk/desk.svelte';

  interface Props {
    desk: Desk;
    score: Score;
    plan: FingeringPlan;
    /** The bars that are looked at in this panel, and their name. */
    barUids: readonly string[];
    passageName: string;
  }
  let { desk, score, plan, barUids, passageName }: Props = $props();

  const noteOf = $derived(new Map(score.notes.map((note) => [note.uid, note])));
  const barAt = (uid: string | undefined) => noteOf.get(uid ?? '')?.measureIndex ?? 0;
  const named = (bar: number) => score.measures[bar]?.number ?? '';
  const barsOf = (figure: PlannedFigure) => {
    const [from, to] = [named(barAt(figure.uids[0])), named(barAt(figure.uids.at(-1)))];
    return from === to ? `Bar ${from}` : `Bars ${from} to ${to}`;
  };
  const voices = $derived(new Set(plan.figures.map(({ voice }) => voice)).size);
  const here = $derived(plan.figures.find(({ uids }) => uids.includes(desk.selection.uid ?? '')) ?? null);
  const listed = $derived(
    plan.figures.filter(({ rule }) => rule !== 'withUpper').toSorted((a, b) => a.fromTicks - b.fromTicks),
  );

  let scope = $state<'figure' | 'bars'>('figure');
  /** The notes that are named: the whole figure, or its voice in the bars above. */
  const meant = $derived.by(() => {
    if (!here) return [];
    if (scope === 'figure') return here.uids;
    return score.notes
      .filter(
        ({ voice, measureIndex }) =>
          voice === here.voice && barUids.includes(score.measures[measureIndex]!.uid),
      )
      .map(({ uid }) => uid);
  });
  const word = $derived(desk.session.lens.textureOf.get(desk.selection.uid ?? '') ?? null);
  const landing = $derived(
    plan.landings.find(({ ticks }) => barUids.includes(score.measures[barOfTick(ticks)]?.uid ?? '')) ?? null,
  );
  const barOfTick = (ticks: number) => score.measures.findLastIndex(({ startTicks }) => startTicks <= ticks);
  const choose = (value: string) => desk.setTexture(meant, (value || null) as Texture | null);
</script>

<section aria-labelledby="figure-heading" class="text-sm" data-testid="figure-here">
  <h2 id="figure-heading" class="mb-1 font-semibold">Figure here</h2>
  {#if here}
    <p class="mb-1.5 leading-snug">
      {barsOf(here)}{voices > 1 ? `, voice ${here.voice}` : ''}:
      <span class="font-semibold">{TEXTURE_NAMES[here.texture]}</span>{#if here.formula.length > 0},
        <i class="font-serif whitespace-nowrap">{formulaText(here.formula)}</i>{/if}.
      <span class="block text-xs opacity-80">{figureReasonText(here)}</span>
    </p>
    <div class="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1.5">
      <label for="texture">It is</label>
      <select
        id="texture"
        class="select select-sm w-full"
        value={word ?? ''}
        onchange={(event) => choose(event.currentTarget.value)}
      >
        <option value="">as read</option>
        {#each TEXTURE_IDS as id (id)}<option value={id}>{TEXTURE_NAMES[id]}</option>{/each}
      </select>
      <label for="texture-scope">for</label>
      <select id="texture-scope" class="select select-sm w-full" bind:value={scope}>
        <option value="figure">the whole figure</option>
        <option value="bars">this voice in {passageName}</option>
      </select>
    </div>
  {:else}
    <p>Select a note to see what it is part of.</p>
  {/if}
  {#if landing}
    <p class="mt-2 text-xs leading-snug" data-testid="landing">
      After the {EFFECT_NAMES[landing.effect]} chord
      {landing.fingers.map(({ letter, string }) => `${letter} on ${string}`).join(', ')} land together{landing.reference
        ? `; ${landing.reference.letter} rests on ${landing.reference.string} as a reference`
        : ''}: {landing.thereMs} ms there, about {landing.neededMs} needed.
    </p>
  {/if}
</section>

<section aria-labelledby="figures-heading" class="text-sm">
  <h2 id="figures-heading" class="mb-1 font-semibold">Figures of the piece</h2>
  <ul class="flex max-h-56 flex-col overflow-y-auto" data-testid="figures">
    {#each listed as figure (`${figure.voice} ${figure.fromMoment}`)}
      <li class="border-base-300 border-t">
        <button
          class="hover:bg-base-200 w-full cursor-pointer py-1 text-left leading-snug"
          title={figureReasonText(figure)}
          onclick={() => desk.selection.select(figure.uids[0] ?? '')}
        >
          <span class="font-medium">{barsOf(figure)}{voices > 1 ? `, voice ${figure.voice}` : ''}.</span>
          {TEXTURE_NAMES[figure.texture]}{#if figure.formula.length > 0}:
            <i class="font-serif whitespace-nowrap">{formulaText(figure.formula)}</i>{/if}{figure.rule ===
          'teacher'
            ? ' (named by you)'
            : ''}
        </button>
      </li>
    {/each}
  </ul>
</section>
