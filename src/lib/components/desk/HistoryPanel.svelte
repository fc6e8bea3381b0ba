<!-- States of the edition that have a name: compared, brought back; and who changed what. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import type { Attribute } from '$core/fingering/edition/attributes';
  import { type Difference, differencesOf } from '$core/fingering/edition/difference';
  import type { Desk } from '$lib/client/desk/desk.svelte';
  import { dropName, fetchPast, fetchRegisters, nameState, type Past } from '$lib/client/desk/past';

  interface Props {
    desk: Desk;
    editionId: string;
  }
  let { desk, editionId }: Props = $props();

  let past = $state.raw<Past | null>(null);
  let name = $state('');
  let compared = $state.raw<{ readonly name: string; readonly differences: readonly Difference[] } | null>(
    null,
  );
  const MOST_SHOWN = 40;
  const isSaved = $derived(desk.session.saver.state.kind === 'saved');

  /** Says what went wrong where everything else is said. */
  async function trying(work: () => Promise<void>) {
    try {
      await work();
      past = await fetchPast(editionId);
    } catch (error) {
      desk.notice = error instanceof Error ? error.message : String(error);
    }
  }
  onMount(() => {
    void trying(async () => {});
    return () => (desk.compared = new Set());
  });

  const keep = () =>
    trying(async () => {
      await nameState(editionId, name.trim());
      name = '';
    });
  const compare = (seq: number, of: string) =>
    trying(async () => {
      const differences = differencesOf(desk.session.registers, await fetchRegisters(editionId, seq));
      compared = { name: of, differences };
      desk.compared = new Set(differences.map(({ target }) => target));
    });
  const bringBack = (seq: number, of: string) =>
    trying(async () => {
      const then = await fetchRegisters(editionId, seq);
      const { session } = desk;
      const differences = differencesOf(session.registers, then);
      session.decide(
        differences.map(({ target, attribute, then: value }) =>
          session.change(target, attribute, value as never),
        ),
      );
      compared = null;
      desk.compared = new Set();
      desk.notice = `The edition is as it was at “${of}”: ${differences.length} marks changed. Ctrl z takes it back.`;
    });

  const placeOf = (target: string): string =>
    desk.nameOf(target) ? `${desk.nameOf(target)}, bar ${desk.selection.barOf(target)}` : target;
  const words = (value: unknown) => (value === null ? 'nothing' : String(value));
  const what = (attribute: Attribute) => attribute.replace(/([A-Z])/g, ' $1').toLowerCase();
  const time = (text: string) =>
    new Date(text).toLocaleString('en-GB', {
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
    });
</script>

<section aria-labelledby="history-heading" class="text-sm" data-testid="history">
  <h2 id="history-heading" class="mb-1 font-semibold">History</h2>
  <form
    class="flex gap-1"
    onsubmit={(event) => {
      event.preventDefault();
      if (name.trim()) void keep();
    }}
  >
    <input class="input input-xs flex-1" aria-label="Name of this state" maxlength="60" bind:value={name} />
    <button class="btn btn-xs" disabled={!name.trim() || !isSaved}>Name this state</button>
  </form>
  <ul class="mt-1" data-testid="milestones">
    {#each past?.milestones ?? [] as one (one.id)}
      <li class="border-base-300 flex flex-wrap items-baseline gap-1 border-t py-1">
        <span class="font-medium">{one.name}</span>
        <span class="text-xs opacity-80">{one.by}, {time(one.createdAt)}</span>
        <span class="ml-auto flex gap-1">
          <button class="btn btn-xs" onclick={() => compare(one.seq, one.name)}>Compare</button>
          <button class="btn btn-xs" onclick={() => bringBack(one.seq, one.name)}>Bring back</button>
          <button
            class="btn btn-xs btn-ghost"
            aria-label="Take the name “{one.name}” away"
            onclick={() => trying(() => dropName(one.id))}>✕</button
          >
        </span>
      </li>
    {/each}
  </ul>
  {#if compared}
    <div class="border-base-300 rounded-box mt-1 border p-2 text-xs" data-testid="compared">
      <p class="font-medium">
        {compared.differences.length === 0
          ? `Nothing has changed since “${compared.name}”.`
          : `${compared.differences.length} marks are not as at “${compared.name}”; their notes are framed.`}
      </p>
      <ul class="max-h-40 overflow-y-auto">
        {#each compared.differences.slice(0, MOST_SHOWN) as { target, attribute, now, then } (target + attribute)}
          <li>
            <button class="cursor-pointer text-left" onclick={() => desk.selection.select(target)}
              >{placeOf(target)}: {what(attribute)} was {words(then)}, is {words(now)}</button
            >
          </li>
        {/each}
      </ul>
    </div>
  {/if}
  {#if past && past.changes.length > 0}
    <details class="mt-1 text-xs">
      <summary class="cursor-pointer">Who changed what</summary>
      <ul class="max-h-40 overflow-y-auto" data-testid="changes">
        {#each past.changes as { seq, by, at, operations } (seq)}
          <li>
            {time(at)}, {by}: {operations.length === 1
              ? `${placeOf(operations[0]!.target)}, ${what(operations[0]!.attribute)} ${words(operations[0]!.after)}`
              : `${operations.length} marks`}
          </li>
        {/each}
      </ul>
    </details>
  {/if}
</section>
