<script lang="ts">
  import { points } from '$core/messages/units';
  import { onMount, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Download from '@lucide/svelte/icons/download';
  import Keyboard from '@lucide/svelte/icons/keyboard';
  import Printer from '@lucide/svelte/icons/printer';
  import PageHeader from '$lib/components/PageHeader.svelte';
  import WalkPanel from '$lib/components/practice/WalkPanel.svelte';
  import { importErrorText } from '$core/messages/en';
  import { placeOf, tempoAt } from '$core/score/places';
  import type { ExportKind } from '$core/formats/musicxml/exportFingered';
  import { Desk } from '$lib/client/desk/desk.svelte';
  import type { DeskOpening } from '$lib/client/desk/stored';
  import { correctedNotes, noticedBars } from './corrections';
  import FretboardPanel from './FretboardPanel.svelte';
  import HandPanel from './HandPanel.svelte';
  import Hints from './Hints.svelte';
  import HistoryPanel from './HistoryPanel.svelte';
  import LanesDock from './LanesDock.svelte';
  import ScorePanel from './ScorePanel.svelte';
  import { acceptSlur, refuseSlur } from '$lib/client/desk/slurs';
  import { steadySet } from '$lib/client/steadySet';
  import { setPluck } from '$lib/client/desk/deciding';
  import { keyOf, maybeShortcut } from '$lib/client/desk/shortcuts';
  import DeskTabs from './DeskTabs.svelte';
  import FindingsPanel from './FindingsPanel.svelte';
  import KeyHelp from './KeyHelp.svelte';
  import MarkReasons from './MarkReasons.svelte';
  import NotePanel from './NotePanel.svelte';
  import OvertakenPanel from './OvertakenPanel.svelte';
  import Palette from './Palette.svelte';
  import RemarkPanel from './RemarkPanel.svelte';
  import RangePanel from './RangePanel.svelte';
  import SaveState from './SaveState.svelte';
  import StrokesPanel from './StrokesPanel.svelte';
  import ScorePage from './ScorePage.svelte';

  interface Props {
    opening: DeskOpening;
    title: string;
  }
  let { opening, title }: Props = $props();

  // A desk belongs to the piece that it was opened with; the page makes a new one for another piece.
  // svelte-ignore state_referenced_locally
  const desk = new Desk(opening);
  const LEAST_HEIGHT_FOR_LANES = 560;
  onMount(() => {
    desk.lanesShown = window.innerHeight >= LEAST_HEIGHT_FOR_LANES;
    desk.toCopy = () => void goto(copyAddress);
    desk.openPalette = () => (palette = true);
    void desk.open(new URL(location.href).searchParams.get('bar'));
    return () => desk.close();
  });

  let paperWidth = $state(0);
  /** Not while a window is being drawn to its size. */
  const FIT_AFTER_MS = 250;
  $effect(() => {
    const pixels = paperWidth;
    const timer = setTimeout(() => desk.fitPage(pixels), FIT_AFTER_MS);
    return () => clearTimeout(timer);
  });

  let help = $state(false);
  let palette = $state(false);
  const { tab } = $derived(desk);
  const [steadyCorrected, steadyConflicts] = [steadySet<string>(), steadySet<string>()];
  const corrected = $derived(
    steadyCorrected(new Set([...correctedNotes(desk.session.corrections), ...desk.compared])),
  );
  const noticed = $derived(desk.planning.score ? noticedBars(desk.planning.score) : new Set<string>());

  const conflicts = $derived(
    steadyConflicts(
      new Set(desk.findings.filter((f) => /unplayable|Contradicts/.test(f.code)).flatMap((f) => f.uids)),
    ),
  );
  const noteOf = $derived(new Map((desk.planning.score?.notes ?? []).map((note) => [note.uid, note])));
  const nameOf = (uid: string) => desk.nameOf(uid);
  /** What somebody who does not see the page is told of the note they have come to. */
  const spoken = $derived.by(() => {
    const { uid, note, ranged } = desk.selection;
    if (uid === null) return '';
    const ink = desk.session.inkOf(uid);
    const isInk = ink.finger !== null || ink.string !== null || ink.pluck !== null;
    const place =
      note && note.string !== null ? `finger ${note.finger}, string ${note.string}` : 'not planned';
    const marked = ranged.length > 0 ? `, ${ranged.length} notes marked` : '';
    return `${nameOf(uid)}, ${place}, ${isInk ? 'ink' : 'pencil'}, bar ${desk.selection.barOf(uid)}${marked}`;
  });
  let walk = $state<{ go: (by: 1 | -1) => void } | null>(null);
  $effect(() => {
    const { walked } = desk;
    if (walked) untrack(() => walk?.go(walked.by));
  });
  $effect(() => {
    if (tab === 'steps' && desk.planning.plan && !desk.planning.script) void desk.planning.askScripts();
  });
  const passage = $derived(
    desk.selection.range ? { from: desk.selection.range.from, to: desk.selection.range.to + 1 } : null,
  );
  /** Not while a note is left out: with it nothing is proven. */
  const isProven = $derived.by(() => {
    const { plan } = desk.planning;
    return (
      plan !== null && plan.lowerBound === plan.cost && plan.notes.every(({ string }) => string !== null)
    );
  });
  const measure = $derived.by(() => {
    const here = noteOf.get(desk.selection.uid ?? '');
    return here && desk.planning.score?.measures[here.measureIndex];
  });
  const barUid = $derived(measure?.uid);

  function onkeydown(event: KeyboardEvent) {
    if (help || palette || isTyping(event.target) || event.defaultPrevented) return;
    if (event.key === '?') {
      help = true;
      return;
    }
    if (tabbed(event)) return event.preventDefault();
    const row = maybeShortcut(event);
    if (
      !row ||
      (event.key === 'Enter' && event.target instanceof HTMLElement && event.target.closest('button, a'))
    )
      return;
    event.preventDefault();
    row.run(desk, keyOf(event));
  }

  /** From finding to finding while there is one ahead; then the focus goes on to what follows the score. */
  function tabbed(event: KeyboardEvent): boolean {
    if (event.key !== 'Tab' || !(event.target instanceof Element) || !event.target.matches('[data-note]'))
      return false;
    return desk.selection.moveToFinding(event.shiftKey ? -1 : 1, false);
  }

  const isTyping = (target: EventTarget | null) =>
    target instanceof HTMLInputElement ||
    target instanceof HTMLTextAreaElement ||
    target instanceof HTMLSelectElement;

  async function download(kind: ExportKind) {
    const bytes = await desk.planning
      .exportAs(kind, desk.session.markStyle, {
        damps: [...desk.session.damps],
        expressions: desk.session.expressions,
        remarks: desk.remarks,
      })
      .catch((error: Error) => {
        desk.notice = error.message;
        return null;
      });
    if (!bytes) return;
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([new Uint8Array(bytes)], { type: 'application/octet-stream' }));
    link.download = `${fileStem(title)}.fingered.${kind}`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
  }

  const copyAddress = $derived(`/copy/${opening.piece.id}`);
  const fileStem = (text: string) =>
    text
      .trim()
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '') || 'piece';
</script>

<svelte:window {onkeydown} />

<div class="flex min-h-screen flex-col lg:h-screen">
  <PageHeader {title}>
    {#snippet state()}
      <SaveState state={desk.session.saver.state} />
      <a class="link ml-3 text-sm" href="/survey/{opening.piece.id}{barUid ? `?bar=${barUid}` : ''}">Survey</a
      >
    {/snippet}
    {#snippet actions()}
      <div class="join mr-2" role="group" aria-label="Marks on the page">
        {#each [['full', 'Every note'], ['teaching', 'Teaching'], ['sparse', 'Fewest']] as const as [density, name] (density)}
          <button
            class="btn btn-sm join-item font-normal"
            class:btn-active={desk.session.markStyle.density === density}
            aria-pressed={desk.session.markStyle.density === density}
            title="Which marks are printed (f)"
            onclick={() => desk.setDensity(density)}>{name}</button
          >
        {/each}
        <kbd class="kbd kbd-xs ml-1.5 self-center max-xl:hidden">f</kbd>
      </div>
      <button
        class="btn btn-ghost btn-sm"
        onclick={() => desk.undo()}
        disabled={!desk.session.canUndo}
        aria-label="Undo"
        title="Undo (Ctrl z)"
      >
        <Undo2 size={18} aria-hidden="true" />
      </button>
      <button
        class="btn btn-ghost btn-sm"
        onclick={() => desk.redo()}
        disabled={!desk.session.canRedo}
        aria-label="Redo"
        title="Redo (Ctrl y)"
      >
        <Redo2 size={18} aria-hidden="true" />
      </button>
      <button class="btn btn-ghost btn-sm" onclick={() => (help = true)} aria-label="Keys" title="Keys (?)">
        <Keyboard size={18} aria-hidden="true" />
      </button>
      <a class="btn btn-sm btn-primary ml-2" href={copyAddress} title="The student’s copy (Ctrl p)">
        <Printer size={16} aria-hidden="true" /> Copy
        <kbd class="kbd kbd-xs text-base-content max-xl:hidden">Ctrl p</kbd>
      </a>
      <button
        class="btn btn-sm btn-outline"
        onclick={() => download('musicxml')}
        disabled={!desk.planning.plan}
      >
        <Download size={16} aria-hidden="true" /> Save fingered score
      </button>
      <button
        class="btn btn-sm btn-outline"
        onclick={() => download('mxl')}
        disabled={!desk.planning.plan}
        title="The fingered score as a compressed file">Save compressed</button
      >
    {/snippet}
  </PageHeader>

  <!-- In a narrow window, or enlarged, the panel goes below the score. -->
  <div class="flex min-h-0 flex-1 flex-col lg:flex-row">
    <div class="flex min-w-0 flex-col max-lg:h-[78vh] lg:flex-1">
      <main class="min-h-0 flex-1 overflow-y-auto p-2 lg:p-4" aria-busy={desk.planning.busy}>
        {#if desk.refusal}
          <p role="alert" class="rounded-box border-error border p-6">{importErrorText(desk.refusal)}</p>
        {:else if desk.sheet}
          <div
            class="rounded-box mx-auto max-w-5xl px-1 shadow-sm lg:px-3"
            style:background="var(--paper)"
            bind:clientWidth={paperWidth}
          >
            <ScorePage
              sheet={desk.sheet}
              selectedUid={desk.selection.uid}
              {conflicts}
              {corrected}
              {noticed}
              ranged={desk.selection.rangedUids}
              describe={(uid) => `${nameOf(uid)}, bar ${desk.selection.barOf(uid)}`}
              select={(uid) => desk.selection.select(uid)}
              extend={(uid) => desk.selection.extendTo(uid)}
            />
          </div>
        {:else}
          <p class="p-12 text-center font-serif text-xl" role="status">Engraving …</p>
        {/if}
      </main>
      {#if desk.sheet && desk.planning.plan && desk.planning.score}
        <LanesDock
          page={desk.sheet.engraved}
          score={desk.planning.score}
          plan={desk.planning.plan}
          selectedUid={desk.selection.uid}
          select={(uid) => desk.selection.select(uid)}
          shown={desk.lanesShown}
          toggle={() => desk.toggleLanes()}
        />
      {/if}
    </div>

    <aside
      class="border-base-300 bg-base-100 flex shrink-0 flex-col gap-5 p-4 max-lg:border-t lg:w-76 lg:overflow-y-auto lg:border-l"
      aria-label="Note and findings"
    >
      {#if opening.version.report && !opening.version.reportRead && tab !== 'score'}
        <button class="btn btn-sm btn-outline h-auto py-1.5 text-left" onclick={() => (desk.tab = 'score')}>
          Version {opening.version.number} of the file: what was carried over{opening.version.report.check
            .length > 0
            ? `, ${opening.version.report.check.length} to check`
            : ''}
        </button>
      {/if}
      {#if desk.session.setAside.length > 0}
        <div role="alert" class="border-warning rounded-box border p-3 text-sm" data-testid="set-aside">
          <p class="leading-snug">
            {desk.session.setAside.length === 1
              ? 'One of your last changes could not be saved and was taken back'
              : `${desk.session.setAside.length} of your last changes could not be saved and were taken back`};
            everything after it is saved.
          </p>
          <div class="mt-2 flex gap-2">
            <button class="btn btn-sm" onclick={() => desk.session.redoSetAside()}>Make it again</button>
            <button class="btn btn-sm btn-ghost" onclick={() => desk.session.dropSetAside()}>Let it go</button
            >
          </div>
        </div>
      {/if}
      <OvertakenPanel {desk} />
      {#if desk.notice}
        <p role="alert" class="text-warning text-sm">{desk.notice}</p>
      {/if}
      {#if desk.question}
        <div
          role="alertdialog"
          aria-label="Please confirm"
          class="border-warning rounded-box border p-3 text-sm"
        >
          <p class="leading-snug">{desk.question.text}</p>
          <div class="mt-2 flex gap-2">
            <button
              class="btn btn-sm"
              onclick={() => {
                desk.question?.yes();
                desk.question = null;
              }}>Do it</button
            >
            <button class="btn btn-sm btn-ghost" onclick={() => (desk.question = null)}>Leave it</button>
          </div>
        </div>
      {/if}
      {#if desk.correcting}
        <div class="bg-warning/20 rounded-box flex items-center gap-2 p-2 text-xs" data-testid="correcting">
          <span>Corrections are on: keys change the music.</span>
          <button class="btn btn-xs ml-auto" onclick={() => (desk.correcting = false)}
            >Off <kbd class="kbd kbd-xs">Shift e</kbd></button
          >
        </div>
      {/if}
      <Hints />
      <DeskTabs {desk} noticed={noticed.size > 0 || !!desk.planning.score?.notices.length} />
      {#if desk.selection.range && desk.planning.score}
        <RangePanel {desk} score={desk.planning.score} />
      {/if}
      {#if measure}<RemarkPanel {desk} {measure} />{/if}
      {#if tab === 'note' && desk.findings.length > 0 && !desk.planning.busy}
        <button
          class="btn btn-xs btn-ghost -my-3 justify-start self-start font-normal"
          data-testid="to-findings"
          onclick={() => desk.selection.moveToFinding(1)}
          >{desk.findings.length === 1 ? 'One finding' : `${desk.findings.length} findings`}: to the next
          <kbd class="kbd kbd-xs">n</kbd></button
        >
      {/if}
      {#if tab === 'steps' && desk.planning.score && desk.planning.plan}
        <WalkPanel
          bind:this={walk}
          plan={desk.planning.plan}
          score={desk.planning.score}
          scripts={desk.planning.script && desk.planning.strokeScript
            ? { script: desk.planning.script, strokes: desk.planning.strokeScript }
            : null}
          board={desk.session.lens.player.fretboard}
          selectedUid={desk.selection.uid}
          select={(uid) => desk.selection.step(uid)}
          {passage}
        />
      {:else if tab === 'hand' && desk.planning.score && desk.planning.plan}
        <HandPanel {desk} score={desk.planning.score} plan={desk.planning.plan} />
      {:else if tab === 'strokes' && desk.planning.score && desk.planning.plan}
        <StrokesPanel {desk} score={desk.planning.score} plan={desk.planning.plan} />
      {:else if tab === 'score' && desk.planning.score}
        <ScorePanel {desk} score={desk.planning.score} {opening} />
        <HistoryPanel {desk} editionId={opening.piece.editionId} />
      {:else if desk.selection.note}
        <NotePanel
          note={desk.selection.note}
          name={nameOf(desk.selection.note.uid)}
          bar={desk.selection.barOf(desk.selection.note.uid)}
          ink={desk.session.inkOf(desk.selection.note.uid)}
          choices={desk.planning.choices}
          printed={noteOf.get(desk.selection.note.uid)?.printed ?? null}
          place={(ticks) =>
            desk.planning.score ? placeOf(desk.planning.score, ticks) : { bar: '', beat: '' }}
          bpm={desk.planning.score
            ? tempoAt(desk.planning.score, noteOf.get(desk.selection.note.uid)?.onsetTicks ?? 0)
            : 0}
          choose={(finger, string) => desk.choose(finger, string)}
          pluck={(letter) => setPluck(desk, letter)}
          slur={desk.slurHere}
          acceptSlur={() => acceptSlur(desk)}
          refuseSlur={() => refuseSlur(desk)}
        />
        <button
          class="btn btn-xs btn-ghost -mt-3 self-start"
          aria-pressed={desk.boardShown}
          onclick={() => desk.toggleBoard()}
          >{desk.boardShown ? 'Hide the fretboard' : 'Fretboard'} <kbd class="kbd kbd-xs">g</kbd></button
        >
        {#if desk.boardShown && desk.planning.plan && desk.planning.score}
          <FretboardPanel
            plan={desk.planning.plan}
            score={desk.planning.score}
            board={desk.session.lens.player.fretboard}
            momentIndex={desk.selection.note.momentIndex}
          />
        {/if}
        <MarkReasons {desk} />
      {:else if desk.planning.busy && desk.planning.share === 0 && !desk.refusal}
        <p class="text-sm" role="status">Planning both hands …</p>
      {/if}
      {#if desk.planning.busy && desk.planning.share > 0}
        <p class="text-sm" role="status">
          {desk.planning.plan ? 'The first bars are fingered; the' : 'The'} whole piece is being planned:
          <progress class="progress" value={desk.planning.share} max="1" aria-label="planned"></progress>
        </p>
      {/if}
      {#if desk.planning.plan && !desk.planning.busy && tab === 'note'}
        <FindingsPanel
          findings={desk.findings}
          barOf={(uid) => desk.selection.barOf(uid)}
          {nameOf}
          go={(uid) => desk.selection.select(uid)}
          accept={(remedy) => desk.accept(remedy)}
        />
        <section aria-labelledby="plan-heading" class="text-sm">
          <h2 id="plan-heading" class="mb-1 font-semibold">Whole piece</h2>
          <p>
            Effort {points(desk.planning.plan.cost)}: left {points(desk.planning.plan.leftCost)}, right {points(
              desk.planning.plan.rightCost,
            )}; shifts {desk.planning.plan.shifts.length}, barres {desk.planning.plan.barres.length}.
            {#if isProven}No easier fingering exists for this hand and school.{/if}
          </p>
          <p class="mt-3 text-xs leading-snug opacity-85">
            Stretches, barres and repetition can injure: warm up, rest every 20 to 30 minutes, stop at pain,
            numbness or tingling and see a qualified health professional. Oculon advises; the teacher decides.
          </p>
        </section>
      {/if}
    </aside>
  </div>
</div>

<p class="sr-only" aria-live="polite" data-testid="spoken">{spoken}</p>

{#if palette}
  <Palette {desk} close={() => (palette = false)} />
{/if}
{#if help}
  <KeyHelp close={() => (help = false)} />
{/if}
