<!-- Routines: drills in a row with their minutes and tempos, and the page to print. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import PageHeader from '$lib/components/PageHeader.svelte';
  import { ladderBetween, minutesOf, type RoutineItem } from '$core/drills/routine';
  import { dropRoutine, saveRoutine } from '$lib/client/drills/routines';
  import type { StoredRoutine } from '$lib/server/repositories/routines';

  let { routines }: { routines: readonly StoredRoutine[] } = $props();

  let chosenId = $state('');
  let notice = $state('');
  const routine = $derived(routines.find(({ id }) => id === chosenId) ?? routines[0] ?? null);

  async function keep(changes: Partial<Pick<StoredRoutine, 'title' | 'items'>>) {
    if (!routine) return;
    const { id, title, items } = routine;
    chosenId = id;
    const answer = await saveRoutine(id, { title, items, ...changes });
    notice = 'message' in answer ? answer.message : '';
    await invalidateAll();
  }
  const change = (k: number, changes: Partial<RoutineItem>) =>
    keep({ items: routine!.items.map((item, n) => (n === k ? { ...item, ...changes } : item)) });
  function move(k: number, by: 1 | -1) {
    const items = [...routine!.items];
    [items[k], items[k + by]] = [items[k + by]!, items[k]!];
    return keep({ items });
  }
  async function drop() {
    notice = (await dropRoutine(routine!.id)) ?? '';
    await invalidateAll();
  }
</script>

<PageHeader title="Routines" back={{ href: '/drills', name: 'Drill bench' }}>
  {#snippet actions()}
    {#if routine}
      <button class="btn btn-sm btn-ghost" onclick={drop}>Remove “{routine.title}”</button>
      <a class="btn btn-sm btn-primary" href="/api/routines/{routine.id}/page" download>Save the page (PDF)</a
      >
    {/if}
  {/snippet}
</PageHeader>

<main class="mx-auto flex max-w-5xl flex-col gap-4 p-6">
  {#if notice}<p role="alert" class="text-warning">{notice}</p>{/if}
  {#if !routine}
    <p class="font-serif text-xl">No routine yet.</p>
    <p>
      Choose a drill on the <a class="link" href="/drills">drill bench</a> and add it to a new routine: minutes
      and tempos are set here, and the whole stands on one page.
    </p>
  {:else}
    <div class="flex flex-wrap items-center gap-2" role="group" aria-label="Routines">
      {#each routines as one (one.id)}
        <button
          class="btn btn-sm"
          class:btn-active={one.id === routine.id}
          aria-pressed={one.id === routine.id}
          onclick={() => (chosenId = one.id)}>{one.title}</button
        >
      {/each}
    </div>
    <div class="flex items-end gap-4">
      <label class="flex flex-col gap-1 text-sm">
        Name
        <input
          class="input input-sm w-72"
          value={routine.title}
          maxlength="80"
          onchange={(event) => keep({ title: event.currentTarget.value })}
        />
      </label>
      <p class="pb-1 text-sm" data-testid="routine-minutes">{minutesOf(routine)} minutes in all</p>
    </div>
    <ol class="flex flex-col gap-3">
      {#each routine.items as item, k (k)}
        <li class="rounded-box border-base-300 bg-base-100 flex flex-wrap items-end gap-3 border p-3 text-sm">
          <div class="min-w-60 flex-1">
            <a class="link font-semibold" href="/drills?{new URLSearchParams(item.query)}"
              >{k + 1}. {item.title}</a
            >
            <p class="text-xs">{item.focuses.join('; ')}</p>
            <p class="text-xs tabular-nums">♩ = {ladderBetween(item.from, item.to).join(', ')}</p>
          </div>
          {#each [['minutes', 'Minutes', 1, 60], ['from', 'From ♩', 20, 300], ['to', 'to ♩', 20, 300]] as const as [field, label, min, max] (field)}
            <label class="flex w-18 flex-col gap-0.5 text-xs">
              {label}
              <input
                type="number"
                {min}
                {max}
                class="input input-xs"
                value={item[field]}
                onchange={(event) => change(k, { [field]: Number(event.currentTarget.value) })}
              />
            </label>
          {/each}
          <div class="flex gap-1">
            <button class="btn btn-xs" disabled={k === 0} aria-label="Earlier" onclick={() => move(k, -1)}
              >↑</button
            >
            <button
              class="btn btn-xs"
              disabled={k === routine.items.length - 1}
              aria-label="Later"
              onclick={() => move(k, 1)}>↓</button
            >
            <button
              class="btn btn-xs"
              aria-label="Remove {item.title}"
              onclick={() => keep({ items: routine.items.filter((_, n) => n !== k) })}>✕</button
            >
          </div>
        </li>
      {/each}
    </ol>
    <p class="text-xs">
      Short bouts, and a break at least every 20 to 30 minutes; stop at pain, numbness or tingling and see a
      qualified health professional.
    </p>
  {/if}
</main>
