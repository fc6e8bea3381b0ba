<!-- Puts the drill as it is into a routine, one that there is or a new one. -->
<script lang="ts">
  import type { DrillKind } from '$core/drills/drill';
  import { MOST_ITEMS, type RoutineItem } from '$core/drills/routine';
  import type { StoredRoutine } from '$lib/server/repositories/routines';
  import { saveRoutine } from '$lib/client/drills/routines';

  interface Props {
    kind: DrillKind;
    title: string;
    query: Record<string, string>;
    routines: readonly StoredRoutine[];
  }
  let { kind, title, query, routines }: Props = $props();

  // svelte-ignore state_referenced_locally
  let known = $state.raw(routines);
  // svelte-ignore state_referenced_locally
  let chosenId = $state(routines[0]?.id ?? '');
  let minutes = $state(5);
  let said = $state('');

  const item = (): RoutineItem => ({
    query,
    title,
    focuses: kind.passes.map(([focus]) => focus),
    minutes,
    from: kind.ladder[0]!,
    to: kind.ladder.at(-1)!,
  });

  async function add() {
    const routine = known.find(({ id }) => id === chosenId);
    if (routine && routine.items.length >= MOST_ITEMS) {
      said = `“${routine.title}” has ${MOST_ITEMS} drills, which is as many as one page holds.`;
      return;
    }
    const next = {
      title: routine?.title ?? `Routine ${known.length + 1}`,
      items: [...(routine?.items ?? []), item()],
    };
    const answer = await saveRoutine(routine?.id ?? null, next);
    if ('message' in answer) {
      said = answer.message;
      return;
    }
    known = [{ id: answer.id, ...next }, ...known.filter(({ id }) => id !== answer.id)];
    chosenId = answer.id;
    said = `In “${next.title}”, ${next.items.length} ${next.items.length === 1 ? 'drill' : 'drills'}.`;
  }
</script>

<section aria-labelledby="to-routine">
  <h3 id="to-routine" class="mb-1 font-semibold">Routine</h3>
  <div class="flex items-end gap-2 text-xs">
    <label class="flex min-w-0 flex-1 flex-col gap-0.5">
      Into
      <select class="select select-xs w-full" bind:value={chosenId}>
        {#each known as { id, title: name } (id)}<option value={id}>{name}</option>{/each}
        <option value="">a new one</option>
      </select>
    </label>
    <label class="flex w-16 flex-col gap-0.5">
      Minutes
      <input type="number" min="1" max="60" class="input input-xs" bind:value={minutes} />
    </label>
    <button class="btn btn-xs" onclick={add}>Add</button>
  </div>
  <p class="mt-1 text-xs" role="status">
    {said} <a class="link" href="/routines">All routines</a>
  </p>
</section>
