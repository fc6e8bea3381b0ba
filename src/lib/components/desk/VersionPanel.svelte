<!-- The file that the piece came as: newer ones, another edition's marks, and the way out. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import type { DeskOpening } from '$lib/client/desk/stored';
  import { sendFile } from '$lib/client/sendFile';
  import { takenSchema } from '$lib/takenMarks';
  import { newerFileText, versionReportSchema } from '$lib/versionReport';

  interface Props {
    opening: DeskOpening;
  }
  let { opening }: Props = $props();

  let problem = $state('');
  let told = $state('');
  let busy = $state(false);
  let newer: HTMLInputElement;
  let other: HTMLInputElement;

  const { piece, version } = $derived(opening);

  async function send(address: string, file: File | undefined, done: (body: unknown) => void) {
    if (!file) return;
    busy = true;
    problem = told = '';
    const answer = await sendFile(address, file);
    busy = false;
    if (answer.kind === 'refused') problem = answer.message;
    else done(answer.body);
  }

  const sendNewer = (file: File | undefined) =>
    send(`/api/pieces/${piece.id}/versions`, file, (body) => {
      told = newerFileText(versionReportSchema.parse(body));
      void invalidateAll();
    });

  const sendOther = (file: File | undefined) =>
    send(`/api/editions/${piece.editionId}/marks`, file, (body) => {
      const { taken, lost } = takenSchema.parse(body);
      told = `${taken} ${taken === 1 ? 'mark' : 'marks'} taken over; ${lost} found no note that is the same music.`;
      void invalidateAll();
    });
</script>

<section aria-labelledby="version-heading" class="text-sm">
  <h2 id="version-heading" class="mb-1 font-semibold">The file</h2>
  <p class="leading-snug">
    {version.fileName}, version {version.number}.
    <a class="link" href="/api/versions/{version.id}/document?as=imported" download={version.fileName}>
      as imported
    </a>
  </p>
  <div class="mt-2 flex flex-wrap gap-2">
    <button class="btn btn-sm" disabled={busy} onclick={() => newer.click()}>Newer file …</button>
    <button class="btn btn-sm" disabled={busy} onclick={() => other.click()}
      >Take marks from another edition …</button
    >
    <a class="btn btn-sm" href="/api/editions/{piece.editionId}/file" download="{piece.title}.oculon.json">
      Save edition
    </a>
  </div>
  <input
    bind:this={newer}
    type="file"
    class="hidden"
    accept=".musicxml,.xml,.mxl,.mei,.abc"
    aria-label="Newer file"
    onchange={(event) => {
      void sendNewer(event.currentTarget.files?.[0]);
      event.currentTarget.value = '';
    }}
  />
  <input
    bind:this={other}
    type="file"
    class="hidden"
    accept=".json"
    aria-label="Marks of an edition"
    onchange={(event) => {
      void sendOther(event.currentTarget.files?.[0]);
      event.currentTarget.value = '';
    }}
  />
  {#if problem}<p role="alert" class="text-error mt-2 leading-snug">{problem}</p>{/if}
  {#if told}<p role="status" class="mt-2 leading-snug">{told}</p>{/if}
</section>
