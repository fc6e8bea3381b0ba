<script lang="ts">
  import { barList, count, effortPerBar, keyName, tempoName, tuningName } from './describe';
  import type { Piece } from '$lib/server/repositories/pieces';

  interface Props {
    piece: Piece;
  }
  let { piece }: Props = $props();
  const s = $derived(piece.summary);
</script>

<article
  class="group bg-base-100 border-base-300 rounded-box hover:border-primary flex h-full flex-col border transition-colors"
>
  <a href="/desk/{piece.id}" class="flex flex-1 flex-col gap-3 p-5 pb-3">
    <div class="flex items-baseline gap-3">
      <h2 class="font-serif text-2xl leading-tight font-semibold">{piece.title}</h2>
      <span class="ml-auto text-sm whitespace-nowrap">
        {piece.gestures === 0 ? 'in pencil' : 'part inked'}
      </span>
    </div>
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
    <a class="link ml-auto whitespace-nowrap" href="/copy/{piece.id}"
      >Copy<span class="sr-only"> of {piece.title}</span></a
    >
    <a class="link whitespace-nowrap" href="/survey/{piece.id}"
      >Survey<span class="sr-only"> of {piece.title}</span></a
    >
  </p>
</article>
