<script lang="ts">
  import { count, keyName, tuningName } from './describe';
  import type { PieceSummary } from '$lib/pieceSummary';

  interface Props {
    piece: { id: string; title: string; fileName: string; summary: PieceSummary; gestures: number };
  }
  let { piece }: Props = $props();
  const s = $derived(piece.summary);
</script>

<a
  href="/desk/{piece.id}"
  class="group bg-base-100 border-base-300 rounded-box hover:border-primary flex h-full flex-col gap-3 border p-5 transition-colors"
>
  <div class="flex items-baseline gap-3">
    <h2 class="font-serif text-2xl leading-tight font-semibold">{piece.title}</h2>
    <span class="ml-auto text-sm whitespace-nowrap">{piece.gestures === 0 ? 'in pencil' : 'part inked'}</span>
  </div>
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
      <dd>♩ = {Math.round(s.quartersPerMinute)}{s.tempoAssumed ? ' (assumed)' : ''}</dd>
    </div>
    <div>
      <dt class="sr-only">Tuning</dt>
      <dd>{tuningName(s.tuningId)}</dd>
    </div>
  </dl>
  <p class="mt-auto text-xs opacity-75">{piece.fileName}</p>
</a>
