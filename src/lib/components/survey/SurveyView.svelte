<script lang="ts">
  import { points } from '$core/messages/units';
  import { onMount, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import PageHeader from '$lib/components/PageHeader.svelte';
  import SaveState from '$lib/components/desk/SaveState.svelte';
  import { Desk } from '$lib/client/desk/desk.svelte';
  import type { DeskOpening } from '$lib/client/desk/stored';
  import { maybeDrillKind } from '$core/drills/kinds/all';
  import { drillsFor } from '$core/drills/proposals';
  import { maybeChord } from '$core/survey/chords';
  import { surveyOf } from '$core/survey/survey';
  import { importErrorText } from '$core/messages/en';
  import { midiName } from '$core/music/pitch';
  import EffortChart from './EffortChart.svelte';
  import FormStrip from './FormStrip.svelte';
  import TextureStrip from './TextureStrip.svelte';
  import { barsListed, barsName, keyAreaName, kindWords, TECHNIQUE_NAMES } from './words';

  let { opening }: { opening: DeskOpening } = $props();

  // svelte-ignore state_referenced_locally
  const desk = new Desk(opening, false);
  onMount(() => {
    void desk.open();
    return () => desk.close();
  });

  let selectedBar = $state(0);
  const openOnDesk = (k: number) => void goto(`/desk/${opening.piece.id}?bar=${survey!.bars[k]!.uid}`);
  /** The desk names the bar that it was left at. */
  $effect(() => {
    const asked = page.url.searchParams.get('bar');
    const at = score?.measures.findIndex(({ uid }) => uid === asked) ?? -1;
    if (at >= 0) untrack(() => (selectedBar = at));
  });
  let problem = $state('');

  const score = $derived(desk.planning.score);
  const survey = $derived(score ? surveyOf(score, desk.scoreCorrections.bars, desk.planning.plan) : null);
  const drills = $derived(score && desk.planning.plan ? drillsFor(score, desk.planning.plan) : []);
  const bar = $derived(survey?.bars[selectedBar] ?? null);
  const hardest = $derived(
    [...(survey?.bars ?? [])]
      .map((one, k) => ({ one, k, effort: (one.effort?.left ?? 0) + (one.effort?.right ?? 0) }))
      .filter(({ effort }) => effort > 0)
      .sort((a, b) => b.effort - a.effort)
      .slice(0, 3),
  );

  function setChord(text: string) {
    if (!bar) return;
    problem = '';
    const name = text.trim().replace(/♯/g, '#').replace(/♭/g, 'b');
    if (name !== '' && !maybeChord(name)) {
      problem = `“${text}” is no chord that the survey knows; write it like Am, D7, F#dim or C/E.`;
      return;
    }
    desk.set(bar.uid, 'chord', name === '' ? null : name);
  }

  function setForm(text: string) {
    if (bar) desk.set(bar.uid, 'form', text.trim().slice(0, 8) || null);
  }

  function onkeydown(event: KeyboardEvent) {
    const typing = event.target instanceof HTMLInputElement;
    if (typing) return;
    if ((event.ctrlKey || event.metaKey) && event.key === 'z') desk.undo();
    else if (
      event.key === 'Enter' &&
      bar &&
      !(event.target as HTMLElement).closest('a, button:not([aria-pressed])')
    )
      openOnDesk(selectedBar);
    else if (event.key === 'ArrowLeft') selectedBar = Math.max(0, selectedBar - 1);
    else if (event.key === 'ArrowRight')
      selectedBar = Math.min((survey?.bars.length ?? 1) - 1, selectedBar + 1);
    else return;
    event.preventDefault();
  }
</script>

<svelte:window {onkeydown} />

<PageHeader title="Survey of {opening.piece.title}">
  {#snippet state()}<SaveState state={desk.session.saver.state} />{/snippet}
  {#snippet actions()}
    <button
      class="btn btn-ghost btn-sm"
      onclick={() => desk.undo()}
      disabled={!desk.session.canUndo}
      aria-label="Undo"
    >
      <Undo2 size={18} aria-hidden="true" />
    </button>
    <a class="btn btn-primary btn-sm" href="/desk/{opening.piece.id}">To the desk</a>
  {/snippet}
</PageHeader>

<main class="mx-auto flex max-w-6xl flex-col gap-8 px-6 py-6">
  {#if desk.notice}<p role="alert" class="text-warning">{desk.notice}</p>{/if}
  {#if desk.refusal}
    <p role="alert" class="rounded-box border-error border p-6">{importErrorText(desk.refusal)}</p>
  {:else if !survey || !score}
    <p role="status" class="font-serif text-xl">Reading {opening.piece.title} …</p>
  {:else}
    <section aria-labelledby="form-heading">
      <div class="mb-3 flex items-baseline gap-4">
        <h2 id="form-heading" class="font-serif text-2xl font-semibold">Form</h2>
        <p class="text-sm">
          {survey.distinctBars} of {survey.bars.length} bars are different music{survey.playedBars !==
          survey.bars.length
            ? `; ${survey.playedBars} are played, with repeats and jumps`
            : ''}.
        </p>
      </div>
      <FormStrip
        {survey}
        measures={score.measures}
        {selectedBar}
        select={(k) => (selectedBar = k)}
        open={openOnDesk}
      />
      {#if desk.planning.plan}
        <h3 class="sr-only">Effort by bar</h3>
        <EffortChart bars={survey.bars} measures={score.measures} select={(k) => (selectedBar = k)} />
        <p class="mb-4 ml-19 text-sm">
          Hardest:
          {#each hardest as { one, k, effort } (k)}
            <button class="link mr-2" onclick={() => (selectedBar = k)}
              >bar {one.number} ({points(effort)})</button
            >
          {/each}
        </p>
        <h3 class="sr-only">Textures</h3>
        <TextureStrip
          figures={desk.planning.plan.figures}
          measures={score.measures}
          select={(k) => (selectedBar = k)}
        />
      {:else}
        <p role="status" class="text-sm">Planning both hands …</p>
      {/if}
    </section>

    {#if bar}
      <section
        aria-labelledby="bar-heading"
        class="rounded-box border-base-300 bg-base-100 border p-4 text-sm"
      >
        <h2 id="bar-heading" class="mb-2 font-semibold">
          Bar {bar.number}: {kindWords(bar.kind, score.measures)}{bar.effort
            ? `, effort left ${points(bar.effort.left)}, right ${points(bar.effort.right)}`
            : ''}
        </h2>
        <div class="flex flex-wrap items-end gap-4">
          <label class="flex flex-col gap-1">
            Chord
            <input
              class="input input-sm w-28"
              value={bar.chord ?? ''}
              onchange={(event) => setChord(event.currentTarget.value)}
            />
          </label>
          <label class="flex flex-col gap-1">
            Section that begins here
            <input
              class="input input-sm w-28"
              value={String(desk.session.valueOf(bar.uid, 'form') ?? '')}
              onchange={(event) => setForm(event.currentTarget.value)}
            />
          </label>
          {#if bar.chordCorrected}
            <button class="btn btn-sm" onclick={() => setChord('')}>Take the chord back</button>
          {/if}
          <a
            class="btn btn-sm ml-auto"
            href="/drills?{new URLSearchParams({
              kind: 'piece-changes',
              piece: opening.piece.id,
              from: String(Math.max(1, selectedBar)),
              to: String(selectedBar + 1),
            })}">Drills of this place</a
          >
          <a class="btn btn-sm" href="/desk/{opening.piece.id}?bar={bar.uid}">Bar {bar.number} on the desk</a>
          <p class="order-last w-full">
            {bar.function ? `Function ${bar.function}.` : ''}
            {bar.shape ? `Behind it: the ${bar.shape}.` : ''}
          </p>
        </div>
        {#if problem}<p role="alert" class="text-error mt-2">{problem}</p>{/if}
      </section>
    {/if}

    <div class="grid gap-8 text-sm md:grid-cols-2 lg:grid-cols-4">
      <section aria-labelledby="keys-of-piece">
        <h2 id="keys-of-piece" class="mb-1 font-serif text-xl font-semibold">Keys</h2>
        <ul>
          {#each survey.keys as area (area.fromBar)}
            <li>{keyAreaName(area)}, {barsName(score.measures, area.fromBar, area.toBar)}</li>
          {/each}
        </ul>
      </section>
      <section aria-labelledby="voices-of-piece">
        <h2 id="voices-of-piece" class="mb-1 font-serif text-xl font-semibold">Voices</h2>
        <ul>
          {#each survey.voices as voice (voice.name)}
            <li>
              Voice {voice.name}: {voice.notes} notes, {midiName(voice.lowestMidi)} to {midiName(
                voice.highestMidi,
              )}
            </li>
          {/each}
        </ul>
      </section>
      <section aria-labelledby="techniques-of-piece">
        <h2 id="techniques-of-piece" class="mb-1 font-serif text-xl font-semibold">Techniques</h2>
        <ul data-testid="techniques">
          {#each survey.techniques as { technique, count } (technique)}
            <li>{count} {TECHNIQUE_NAMES[technique]}</li>
          {:else}
            <li>Single notes alone.</li>
          {/each}
        </ul>
      </section>
      {#if drills.length > 0}
        <section aria-labelledby="drills-of-piece">
          <h2 id="drills-of-piece" class="mb-1 font-serif text-xl font-semibold">Drills for it</h2>
          <ul data-testid="drills">
            {#each drills as { kind, chosen, because, bars } (kind)}
              <li>
                <a class="link" href="/drills?{new URLSearchParams({ kind, ...chosen })}"
                  >{maybeDrillKind(kind)?.title}</a
                >: {because}, {barsListed(bars)}
              </li>
            {/each}
          </ul>
        </section>
      {/if}
    </div>
  {/if}
</main>
