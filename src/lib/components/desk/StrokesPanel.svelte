<!-- The right hand: its school and habits, a passage played in several ways, proposed slurs, the formulas of the piece. -->
<script lang="ts">
  import { points } from '$core/messages/units';
  import { PIECE } from '$core/fingering/edition/attributes';
  import type { Way } from '$core/fingering/formulas/compare';
  import type { FingeringPlan } from '$core/fingering/report/plan';
  import { RIGHT_SCHOOL_IDS } from '$core/fingering/right/rules/schools';
  import { REOPENINGS, REST_STROKES } from '$core/fingering/right/rules/style';
  import { TREMOLO_IDS } from '$core/fingering/right/rules/tremolo';
  import {
    EFFECT_NAMES,
    formulaSpanText,
    REOPENING_NAMES,
    REST_STROKE_NAMES,
    RIGHT_SCHOOL_NAMES,
    slurSuggestionText,
    strokeActionText,
    TREMOLO_NAMES,
    wayName,
  } from '$core/messages/strokes';
  import { EFFECT_TAGS, type EffectTag, type Score } from '$core/score/model';
  import { placeOf } from '$core/score/places';
  import type { Desk } from '$lib/client/desk/desk.svelte';
  import ChoiceRow from './ChoiceRow.svelte';
  import FiguresPanel from './FiguresPanel.svelte';

  interface Props {
    desk: Desk;
    score: Score;
    plan: FingeringPlan;
  }
  let { desk, score, plan }: Props = $props();

  $effect(() => {
    // After every plan: an answer that an edit has made old is dropped.
    void plan;
    if (!desk.planning.slurs) desk.planning.askSlurs();
    if (!desk.planning.strokeScript) desk.planning.askScripts();
  });

  const style = $derived(desk.session.lens.right);
  let bars = $state(1);
  const noteOf = $derived(new Map(score.notes.map((note) => [note.uid, note])));
  const barAt = (uid: string | undefined) => noteOf.get(uid ?? '')?.measureIndex ?? 0;
  const first = $derived(barAt(desk.selection.uid ?? undefined));
  const last = $derived(Math.min(score.measures.length - 1, first + bars - 1));
  const barUids = $derived(score.measures.slice(first, last + 1).map(({ uid }) => uid));
  const passage = $derived.by(() => {
    const moments = plan.notes
      .filter(({ uid }) => barAt(uid) >= first && barAt(uid) <= last)
      .map(({ momentIndex }) => momentIndex);
    return moments.length === 0 ? null : { from: Math.min(...moments), to: Math.max(...moments) };
  });
  const named = (bar: number) => score.measures[bar]?.number ?? '';
  const passageName = $derived(
    last > first ? `bars ${named(first)} to ${named(last)}` : `bar ${named(first)}`,
  );
  const shown = $derived(
    desk.planning.ways &&
      passage &&
      desk.planning.ways.from === passage.from &&
      desk.planning.ways.to === passage.to
      ? desk.planning.ways.ways
      : null,
  );
  const ownSchool = $derived(desk.session.lens.schoolOfBar.get(barUids[0] ?? '') ?? null);
  const chordEffect = $derived(desk.session.valueOf(desk.selection.uid ?? '', 'effect') as EffectTag | null);
  const startFinger = $derived(style.startFinger as 'i' | 'm' | 'a' | null);

  /** Moments around the selection: the script of a whole piece is long. */
  const LINES = 12;
  const scriptLines = $derived.by(() => {
    const actions = desk.planning.strokeScript ?? [];
    const moments = [...new Set(actions.map(({ momentIndex }) => momentIndex))];
    const here = moments.findLastIndex((moment) => moment <= (desk.selection.note?.momentIndex ?? 0));
    return moments.slice(Math.max(0, here - 1), here + LINES).map((momentIndex) => {
      const own = actions.filter((action) => action.momentIndex === momentIndex);
      const { bar, beat } = placeOf(score, own[0]!.ticks);
      return { momentIndex, at: `bar ${bar}, beat ${beat}`, actions: own };
    });
  });

  function use(way: Way) {
    if (!passage) return;
    if (way.formula !== null) desk.playFormula(way.formula, passage.from, passage.to);
    else if (way.school !== null) desk.setStrokeSchool(barUids, way.school);
  }
</script>

<section aria-labelledby="right-heading" class="text-sm">
  <h2 id="right-heading" class="mb-2 font-semibold">Right hand</h2>
  <div class="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1.5">
    <ChoiceRow
      label="School"
      choices={RIGHT_SCHOOL_IDS}
      nameOf={(id) => RIGHT_SCHOOL_NAMES[id]}
      value={style.school}
      choose={(id) => desk.set(PIECE, 'rightSchool', id)}
    />
    <ChoiceRow
      label="Begins with"
      choices={['i', 'm', 'a']}
      nameOf={(finger) => finger}
      value={startFinger}
      choose={(finger) => desk.set(PIECE, 'startFinger', finger)}
      none="what falls best"
    />
    <ChoiceRow
      label="Tremolo"
      choices={TREMOLO_IDS}
      nameOf={(id) => TREMOLO_NAMES[id]}
      value={style.tremolo}
      choose={(id) => desk.set(PIECE, 'tremolo', id)}
      none="what falls best"
    />
    <ChoiceRow
      label="Strokes"
      choices={REST_STROKES}
      nameOf={(id) => REST_STROKE_NAMES[id]}
      value={style.restStrokes}
      choose={(id) => desk.set(PIECE, 'restStrokes', id)}
    />
    <ChoiceRow
      label="Reopening"
      choices={REOPENINGS}
      nameOf={(id) => REOPENING_NAMES[id]}
      value={style.reopening}
      choose={(id) => desk.set(PIECE, 'reopening', id)}
    />
    <ChoiceRow
      label="This chord"
      choices={EFFECT_TAGS}
      nameOf={(id) => EFFECT_NAMES[id]}
      value={chordEffect}
      choose={(id) => desk.set(desk.selection.uid ?? '', 'effect', id)}
      none="as written"
      disabled={!desk.selection.uid}
    />
    <span></span>
    <label class="inline-flex items-center gap-1.5 text-xs">
      <input
        type="checkbox"
        class="checkbox checkbox-xs"
        checked={style.littleFinger}
        onchange={(event) => desk.set(PIECE, 'littleFinger', event.currentTarget.checked || null)}
      />
      the little finger <i class="font-serif">c</i> may play
    </label>
  </div>
</section>

<FiguresPanel {desk} {score} {plan} {barUids} {passageName} />

<section aria-labelledby="ways-heading" class="text-sm">
  <div class="mb-1 flex items-baseline gap-2">
    <h2 id="ways-heading" class="font-semibold">Ways to play {passageName}</h2>
    <label class="ml-auto inline-flex items-center gap-1 text-xs"
      >bars <input class="input input-xs w-12" type="number" min="1" max="8" bind:value={bars} /></label
    >
  </div>
  {#if ownSchool}
    <p class="mb-1 text-xs">
      Here: {RIGHT_SCHOOL_NAMES[ownSchool]}.
      <button class="link" onclick={() => desk.setStrokeSchool(barUids, null)}>As the piece</button>
    </p>
  {/if}
  {#if !shown}
    <button
      class="btn btn-sm btn-outline"
      disabled={!passage}
      onclick={() => passage && desk.planning.askWays(passage.from, passage.to)}
      >Compare formulas and schools</button
    >
  {:else}
    <table class="w-full text-xs tabular-nums" data-testid="ways">
      <thead>
        <tr class="text-left align-bottom">
          <th class="font-medium">way</th>
          <th class="pl-2 text-right font-medium" title="Effort of the right hand">effort</th>
          <th class="pl-2 text-right font-medium" title="Crossings against the hand">crossings</th>
          <th class="pl-2 text-right font-medium" title="Fingers that play twice in a row">repeats</th>
          <th
            class="pl-2 text-right font-medium"
            title="How often the hand changes strings, and how often it turns round"
            >string changes / turns</th
          >
          <th class="pl-2 text-right font-medium" title="Way of the hand beyond what the fingers spread"
            >hand travel, mm</th
          >
          <th class="pl-2 text-right font-medium" title="Beats a minute up to which it runs">runs at</th>
        </tr>
      </thead>
      <tbody>
        {#each shown as way (wayName(way))}
          {@const m = way.measure}
          <tr class="border-base-300 border-t align-top">
            <td class="py-1 pr-1">
              {#if way.formula === null && way.school === null}
                <span class="font-semibold">as planned</span>
              {:else}
                <button
                  class="cursor-pointer text-left underline-offset-2 hover:underline"
                  title={way.formula === null ? 'Plan these bars by this school' : 'Ink this formula here'}
                  onclick={() => use(way)}
                  ><span class={way.formula === null ? '' : 'font-serif text-sm whitespace-nowrap italic'}
                    >{wayName(way)}</span
                  ></button
                >
              {/if}
            </td>
            <td class="py-1 pl-2 text-right">{points(m.effort)}</td>
            <td class="py-1 pl-2 text-right {m.crossings > 0 ? 'font-semibold' : ''}">{m.crossings}</td>
            <td class="py-1 pl-2 text-right">{m.repeats}</td>
            <td class="py-1 pl-2 text-right" title="{m.pivotStrings} strings on average, {m.jolts} turn round"
              >{m.pivots}{m.jolts > 0 ? `/${m.jolts}` : ''}</td
            >
            <td class="py-1 pl-2 text-right">{m.displacementMm}</td>
            <td class="py-1 pl-2 text-right">{m.runsAtBpm === null ? '–' : `♩${m.runsAtBpm}`}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="mt-1 text-xs opacity-80">
      A formula is inked over {passageName}; a school is set for these bars.
    </p>
  {/if}
</section>

<section aria-labelledby="slurs-heading" class="text-sm">
  <h2 id="slurs-heading" class="mb-1 font-semibold">Slurs that would help</h2>
  {#if !desk.planning.slurs}
    <p role="status">Looking for slurs …</p>
  {:else if desk.planning.slurs.length === 0}
    <p>No slur would help here.</p>
  {:else}
    <ul class="flex flex-col" data-testid="slurs">
      {#each desk.planning.slurs.slice(0, 8) as one (one.toUid)}
        <li class="border-base-300 border-t py-1">
          <button
            class="hover:bg-base-200 w-full cursor-pointer text-left leading-snug"
            onclick={() => desk.selection.select(one.toUid)}
          >
            <span class="font-medium">Bar {named(barAt(one.toUid))}.</span>
            {slurSuggestionText(one)}
          </button>
          <div class="mt-1 flex gap-1">
            <button
              class="btn btn-xs btn-outline font-normal"
              onclick={() => desk.set(one.toUid, 'slur', true)}>Slur</button
            >
            <button
              class="btn btn-xs btn-ghost font-normal"
              onclick={() => desk.set(one.toUid, 'slur', false)}>No</button
            >
          </div>
        </li>
      {/each}
    </ul>
  {/if}
</section>

<section aria-labelledby="stroke-script-heading" class="text-sm">
  <h2 id="stroke-script-heading" class="mb-1 font-semibold">Script of the right hand</h2>
  {#if !desk.planning.strokeScript}
    <p role="status">Writing the script …</p>
  {:else}
    <ol class="flex flex-col" data-testid="stroke-script">
      {#each scriptLines as line (line.momentIndex)}
        <li class="border-base-300 grid grid-cols-[5.6rem_1fr] gap-x-2 border-t py-0.5 leading-snug">
          <span class="whitespace-nowrap tabular-nums">{line.at}</span>
          <span>
            {#each line.actions as action (action.kind)}
              <span class="block {action.kind === 'stroke' ? '' : 'opacity-80'}"
                >{strokeActionText(action)}</span
              >
            {/each}
          </span>
        </li>
      {/each}
    </ol>
  {/if}
</section>

<section aria-labelledby="formulas-heading" class="text-sm">
  <h2 id="formulas-heading" class="mb-1 font-semibold">Formulas of the piece</h2>
  {#if plan.formulas.length === 0}
    <p>No figure goes round long enough to be named.</p>
  {:else}
    <ul class="flex max-h-56 flex-col overflow-y-auto" data-testid="formulas">
      {#each plan.formulas as span (span.fromMoment)}
        <li class="border-base-300 border-t">
          <button
            class="hover:bg-base-200 w-full cursor-pointer py-1 text-left leading-snug"
            onclick={() => desk.selection.select(span.fromUid)}
          >
            <span class="font-medium">Bar {named(barAt(span.fromUid))}.</span>
            {formulaSpanText(span)}
          </button>
        </li>
      {/each}
    </ul>
  {/if}
</section>

<p class="text-xs leading-snug opacity-85">
  The times of fingers are estimates; a student’s own hand decides. Practise repetition in short spells and
  stop at pain, numbness or tingling: a qualified health professional can help.
</p>
