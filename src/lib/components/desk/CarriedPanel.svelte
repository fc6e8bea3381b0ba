<!-- How a newer file was carried over: what is new, which marks wait for an answer, and the way back. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import type { Attribute } from '$core/fingering/edition/attributes';
  import { listRegisters, type Register } from '$core/fingering/edition/registers';
  import type { Doubt } from '$core/score/alignment/doubts';
  import type { Score } from '$core/score/model';
  import type { Desk } from '$lib/client/desk/desk.svelte';
  import type { DeskOpening } from '$lib/client/desk/stored';
  import type { VersionReport } from '$lib/versionReport';
  import { correctionWords } from './corrections';

  interface Props {
    desk: Desk;
    score: Score;
    opening: DeskOpening;
  }
  let { desk, score, opening }: Props = $props();

  type Check = VersionReport['check'][number];

  let problem = $state('');
  let busy = $state(false);
  let putAway = $state(false);

  const { piece, version } = $derived(opening);
  const report = $derived(version.report);
  const isRead = $derived(version.reportRead || putAway);
  const marks = $derived(
    listRegisters(desk.session.registers).filter(({ target }) => target.startsWith('n')),
  );
  const isSet = $derived(new Set(marks.map(({ target, attribute }) => `${target} ${attribute}`)));
  const uids = $derived(new Set(score.notes.flatMap((note) => [note.uid, ...note.tiedUids])));
  const toCheck = $derived((report?.check ?? []).filter((one) => isSet.has(`${one.from} ${one.attribute}`)));
  const asked = $derived(new Set(toCheck.map((one) => `${one.from} ${one.attribute}`)));
  /** Marks on notes that this version does not have: kept, and here to be seen. */
  const waiting = $derived(
    marks.filter(({ target, attribute }) => !uids.has(target) && !asked.has(`${target} ${attribute}`)),
  );
  const lostPlace = $derived(new Map((report?.lost ?? []).map((one) => [one.uid, one])));

  const DOUBT_WORDS: Readonly<Record<Doubt, string>> = {
    bar: 'the bar is mostly another one',
    place: 'it stands elsewhere in the bar',
    voice: 'it is in another voice',
    length: 'it has another length',
  };

  const markWords = (mark: Register) =>
    ({ finger: `finger ${mark.value}`, string: `string ${mark.value}`, pluck: String(mark.value) })[
      mark.attribute as string
    ] ?? correctionWords(mark);

  const registerOf = ({ from, attribute, value }: Check): Register => ({
    target: from,
    attribute: attribute as Attribute,
    value,
  });

  const countWords = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;

  function take(checks: readonly Check[]) {
    const { session } = desk;
    session.decide(
      checks.flatMap((one) => [
        session.change(one.to, one.attribute as Attribute, one.value as never),
        session.change(one.from, one.attribute as Attribute, null),
      ]),
    );
  }

  const drop = (registers: readonly Pick<Register, 'target' | 'attribute'>[]) =>
    desk.session.decide(
      registers.map(({ target, attribute }) => desk.session.change(target, attribute, null)),
    );

  async function ask(address: string): Promise<boolean> {
    busy = true;
    problem = '';
    const answer = await fetch(address, { method: 'DELETE' }).catch(() => null);
    busy = false;
    if (!answer?.ok) problem = 'The server does not answer; nothing was changed. Try again.';
    return answer?.ok === true;
  }

  async function read() {
    if (await ask(`/api/versions/${version.id}/report`)) putAway = true;
  }

  async function goBack() {
    // What is still on its way belongs to the version that is left.
    await desk.session.saver.flush();
    if (await ask(`/api/pieces/${piece.id}/versions?number=${version.number}`)) await invalidateAll();
  }
</script>

{#if report && !isRead}
  <div class="border-base-300 rounded-box mb-3 border p-3" data-testid="report">
    <p class="leading-snug">
      Version {version.number} against the one before: {Math.round(report.likeness * 100)} % of its notes are here,
      {countWords(report.notesAdded, 'is', 'are')} new, {countWords(report.notesGone, 'is', 'are')} gone;
      {countWords(report.carried, 'mark was', 'marks were')} carried over.
      {#if report.barsAdded.length > 0}New bars: {report.barsAdded.join(', ')}.{/if}
      {#if report.barsGone.length > 0}Bars gone: {report.barsGone.join(', ')}.{/if}
    </p>
    <div class="mt-2 flex flex-wrap gap-2">
      <button class="btn btn-sm" disabled={busy} onclick={() => void read()}>Put away</button>
      <button class="btn btn-sm" disabled={busy} onclick={() => void goBack()}>
        Undo: back to version {version.number - 1}
      </button>
    </div>
    {#if problem}<p role="alert" class="text-error mt-2 leading-snug">{problem}</p>{/if}
  </div>
{/if}
{#if toCheck.length > 0}
  <p class="font-medium">Carried, please check</p>
  <ul class="mb-2 leading-snug" data-testid="to-check">
    {#each toCheck as one (one.from + one.attribute)}
      <li class="border-base-300 flex items-baseline gap-2 border-b py-1">
        <button class="link flex-1 text-left" onclick={() => desk.selection.select(one.to)}>
          Bar {one.bar}, {one.note}: {markWords(registerOf(one))}; {DOUBT_WORDS[one.doubt]}
        </button>
        <button class="btn btn-xs" onclick={() => take([one])}>Take</button>
        <button class="btn btn-xs" onclick={() => drop([registerOf(one)])}>Drop</button>
      </li>
    {/each}
  </ul>
  {#if toCheck.length > 1}
    <div class="mb-3 flex gap-2">
      <button class="btn btn-sm" onclick={() => take(toCheck)}>Take all {toCheck.length}</button>
      <button class="btn btn-sm" onclick={() => drop(toCheck.map(registerOf))}>Drop all</button>
    </div>
  {/if}
{/if}
{#if waiting.length > 0}
  <p class="font-medium">Marks without a note in this version</p>
  <ul class="mb-2 leading-snug" data-testid="waiting-marks">
    {#each waiting as mark (mark.target + mark.attribute)}
      <li class="flex items-baseline gap-2">
        <span class="flex-1">
          {lostPlace.get(mark.target)
            ? `Bar ${lostPlace.get(mark.target)!.bar}, ${lostPlace.get(mark.target)!.note}`
            : 'An earlier version'}: {markWords(mark)}
        </span>
        <button class="btn btn-xs" onclick={() => drop([mark])}>Drop</button>
      </li>
    {/each}
  </ul>
{/if}
