<!-- Everything that can be done at the desk, found by name; what has a key shows it. -->
<script lang="ts">
  import Fuse from 'fuse.js';
  import type { Desk } from '$lib/client/desk/desk.svelte';
  import { GROUPS, type Shortcut } from '$lib/client/desk/keys/shortcut';
  import { SHORTCUTS } from '$lib/client/desk/shortcuts';

  interface Props {
    desk: Desk;
    close: () => void;
  }
  let { desk, close }: Props = $props();

  interface Entry {
    readonly name: string;
    readonly row: Shortcut;
    readonly key: string;
  }

  /** A row of several keys is several things to do. */
  const ENTRIES: readonly Entry[] = SHORTCUTS.flatMap((row) =>
    row.keys.length > 1 && row.keys[0] !== 'Backspace'
      ? row.keys.map((key) => ({ name: `${row.does}: ${nameOf(row, key)}`, row, key }))
      : [{ name: row.does, row, key: row.keys[0] ?? '' }],
  );
  function nameOf({ does, keys }: Shortcut, key: string): string {
    if (does.startsWith('strings')) return String(keys.indexOf(key) + 1);
    return key.replace('Arrow', '').toLowerCase();
  }

  const fuse = new Fuse(ENTRIES, {
    keys: ['name', { name: 'row.shown', weight: 0.3 }],
    threshold: 0.35,
    ignoreLocation: true,
  });
  const MOST = 12;
  let query = $state('');
  let at = $state(0);
  const found = $derived(
    (query.trim() ? fuse.search(query).map(({ item }) => item) : ENTRIES).slice(0, MOST),
  );

  let dialog: HTMLDialogElement;
  let field: HTMLInputElement;
  $effect(() => {
    dialog.showModal();
    field.focus();
  });

  function run(entry: Entry | undefined) {
    if (!entry) return;
    dialog.close();
    entry.row.run(desk, entry.key);
  }
  function onkeydown(event: KeyboardEvent) {
    if (event.key === 'ArrowDown') at = Math.min(found.length - 1, at + 1);
    else if (event.key === 'ArrowUp') at = Math.max(0, at - 1);
    else if (event.key === 'Enter') run(found[at]);
    else return;
    event.preventDefault();
  }
</script>

<dialog
  bind:this={dialog}
  class="modal items-start pt-16"
  aria-label="Everything that can be done"
  onclose={close}
>
  <div class="modal-box max-w-lg p-3">
    <input
      bind:this={field}
      bind:value={query}
      class="input w-full"
      role="combobox"
      aria-expanded="true"
      aria-controls="palette-list"
      aria-activedescendant={found[at] ? `palette-${at}` : undefined}
      aria-label="What to do"
      placeholder="What to do …"
      {onkeydown}
      oninput={() => (at = 0)}
    />
    <ul id="palette-list" role="listbox" aria-label="What can be done" class="mt-2 text-sm">
      {#each found as entry, k (entry.name + entry.row.shown)}
        <!-- The field keeps the focus and has the keys. -->
        <!-- svelte-ignore a11y_click_events_have_key_events -->
        <li
          id="palette-{k}"
          role="option"
          aria-selected={k === at}
          class="flex cursor-pointer items-baseline gap-3 rounded px-2 py-1 {k === at ? 'bg-base-200' : ''}"
          onclick={() => run(entry)}
        >
          <span>{entry.name}</span>
          <span class="ml-auto text-xs whitespace-nowrap">{GROUPS[entry.row.group].split(' (')[0]}</span>
          {#if entry.row.shown}<kbd class="kbd kbd-xs whitespace-nowrap">{entry.row.shown}</kbd>{/if}
        </li>
      {:else}
        <li class="px-2 py-1" role="option" aria-selected="false">Nothing is called so.</li>
      {/each}
    </ul>
  </div>
</dialog>
