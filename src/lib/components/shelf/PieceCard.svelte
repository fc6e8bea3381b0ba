<script lang="ts">
  import { barList, count, effortPerBar, keyName, tempoName, tuningName } from './describe';
  import type { PieceChanges } from '$lib/client/pieces';
  import type { Piece } from '$lib/server/repositories/pieces';

  import { stateWords } from './order';

  interface Props {
    piece: Piece;
    /** Null when it is done, else what was in the way. */
    change: (changes: PieceChanges) => Promise<string | null>;
  }
  let { piece, change }: Props = $props();

  let editing = $state(false);
  let problem = $state('');
  async function save(event: SubmitEvent) {
    event.preventDefault();
    const form = new FormData(event.currentTarget as HTMLFormElement);
    const text = (name: string) => String(form.get(name) ?? '').trim();
    const tags = text('tags')
      .split(',')
      .map((tag) => tag.trim())
      .filter((tag) => tag !== '');
    problem = (await change({ title: text('title'), composer: text('composer') || null, tags })) ?? '';
    if (problem === '') editing = false;
  }
  const s = $derived(piece.summary);
</script>

<article
  class="group bg-base-100 border-base-300 rounded-box hover:border-primary flex h-full flex-col border transition-colors"
>
  <a href="/desk/{piece.id}" class="flex flex-1 flex-col gap-3 p-5 pb-3">
    <div class="flex items-baseline gap-3">
      <h2 class="font-serif text-2xl leading-tight font-semibold">{piece.title}</h2>
      <span class="ml-auto text-sm whitespace-nowrap">
        {stateWords(piece)}
      </span>
    </div>
    {#if piece.composer || piece.tags.length > 0}
      <p class="-mt-2 flex flex-wrap items-center gap-2 text-sm">
        {piece.composer ?? ''}
        {#each piece.tags as tag (tag)}
          <span class="border-base-300 rounded-sm border px-1.5 text-xs">{tag}</span>
        {/each}
      </p>
    {/if}
    <div class="paper-strip rounded-field h-24 overflow-hidden">
      {#if piece.pageReady}
        <img
          src="/api/versions/{piece.versionId}/first-line"
          alt="First line of {piece.title}"
          class="h-full w-full object-cover object-left"
          loading="lazy"
        />
      {/if}
    </div>
    {#if s}
      <dl class="flex flex-wrap gap-x-5 gap-y-1 text-sm">
        <div>
          <dt class="sr-only">Key</dt>
          <dd>{keyName(s)}</dd>
        </div>
        <div>
          <dt class="sr-only">Metre</dt>
          <dd>{s.metre ?? 'no metre'}</dd>
        </div>
        <div>
          <dt class="sr-only">Length</dt>
          <dd>{count(s.bars, 'bar')}, {count(s.notes, 'note')}</dd>
        </div>
        <div>
          <dt class="sr-only">Voices</dt>
          <dd>{count(s.voices, 'voice')}</dd>
        </div>
        <div>
          <dt class="sr-only">Tempo</dt>
          <dd>{tempoName(s)}{s.tempoAssumed ? ' (assumed)' : ''}</dd>
        </div>
        <div>
          <dt class="sr-only">Tuning</dt>
          <dd>{tuningName(s.tuningId)}</dd>
        </div>
      </dl>
    {:else}
      <p class="text-sm" role="alert">
        What is stored of this piece makes no sense. Its marks are kept; give its file again on the desk as a
        newer version.
      </p>
    {/if}
    <p class="text-sm">
      {#if piece.plan && s}
        Effort {effortPerBar(piece.plan, s.bars)} a bar; hardest: {barList(piece.plan.hardestBars)}.
        {#if piece.plan.unplayable > 0}
          <span class="text-warning font-medium"
            >{count(piece.plan.unplayable, 'place')} no hand can play.</span
          >
        {/if}
      {:else}
        Not planned yet.
      {/if}
    </p>
  </a>
  <p class="border-base-300 flex gap-3 border-t px-5 py-2 text-xs">
    <span class="truncate opacity-75">
      {piece.fileName}{piece.versionNumber > 1 ? `, version ${piece.versionNumber}` : ''}
    </span>
    <button class="link ml-auto cursor-pointer whitespace-nowrap" onclick={() => (editing = !editing)}
      >Name, tags<span class="sr-only"> of {piece.title}</span></button
    >
    <button class="link cursor-pointer whitespace-nowrap" onclick={() => change({ removed: true })}
      >Remove<span class="sr-only"> {piece.title}</span></button
    >
    <a class="link whitespace-nowrap" href="/copy/{piece.id}"
      >Copy<span class="sr-only"> of {piece.title}</span></a
    >
    <a class="link whitespace-nowrap" href="/survey/{piece.id}"
      >Survey<span class="sr-only"> of {piece.title}</span></a
    >
  </p>
  {#if editing}
    <form class="border-base-300 grid grid-cols-2 gap-2 border-t px-5 py-3 text-xs" onsubmit={save}>
      <label class="col-span-2 flex flex-col gap-0.5">
        Title
        <input class="input input-sm w-full" name="title" required maxlength="200" value={piece.title} />
      </label>
      <label class="flex flex-col gap-0.5">
        Composer
        <input class="input input-sm w-full" name="composer" maxlength="120" value={piece.composer ?? ''} />
      </label>
      <label class="flex flex-col gap-0.5">
        Tags, with commas between them
        <input class="input input-sm w-full" name="tags" maxlength="380" value={piece.tags.join(', ')} />
      </label>
      {#if problem}<p role="alert" class="text-error col-span-2">{problem}</p>{/if}
      <div class="col-span-2 flex gap-2">
        <button class="btn btn-xs btn-primary">Keep</button>
        <button type="button" class="btn btn-xs" onclick={() => (editing = false)}>Leave it</button>
      </div>
    </form>
  {/if}
</article>
