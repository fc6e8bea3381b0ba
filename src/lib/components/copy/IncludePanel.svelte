<!-- On which paper, how large, and what stands on it besides the fingered score. -->
<script lang="ts">
  import { type CopyOptions, type Includable, INCLUDABLE } from '$core/copy/paper';
  import type { Copy } from '$lib/client/copy/copy.svelte';
  import { INCLUDE_NAMES } from './words';

  let { copy }: { copy: Copy } = $props();

  const { options } = $derived(copy);

  function toggle(what: Includable, on: boolean) {
    const rest = options.include.filter((one) => one !== what);
    copy.set({ include: on ? [...rest, what] : rest });
  }
  const set = (key: 'paper' | 'orientation' | 'staff', value: string) =>
    copy.set({ [key]: value } as Partial<CopyOptions>);
  const ROWS = [
    [
      'paper',
      'Paper',
      [
        ['a4', 'A4'],
        ['letter', 'Letter'],
      ],
    ],
    [
      'orientation',
      'Held',
      [
        ['portrait', 'upright'],
        ['landscape', 'across'],
      ],
    ],
    [
      'staff',
      'Music',
      [
        ['normal', 'normal'],
        ['large', 'large'],
        ['largest', 'very large'],
      ],
    ],
  ] as const;
</script>

<section aria-labelledby="copy-paper">
  <h2 id="copy-paper" class="mb-2 font-semibold">Paper</h2>
  <div class="grid grid-cols-3 gap-2">
    {#each ROWS as [key, label, values] (key)}
      <label class="flex flex-col gap-1 text-xs">
        {label}
        <select
          class="select select-sm w-full"
          value={options[key]}
          onchange={(event) => set(key, event.currentTarget.value)}
        >
          {#each values as [value, words] (value)}<option {value}>{words}</option>{/each}
        </select>
      </label>
    {/each}
  </div>
  <fieldset class="mt-3">
    <legend class="mb-1 text-xs">Also on it</legend>
    {#each INCLUDABLE as what (what)}
      <label class="flex items-center gap-2 py-0.5">
        <input
          type="checkbox"
          class="checkbox checkbox-xs"
          checked={options.include.includes(what)}
          onchange={(event) => toggle(what, event.currentTarget.checked)}
        />
        {INCLUDE_NAMES[what]}
      </label>
      {#if what === 'counting' && options.include.includes(what)}
        <label class="mb-1 ml-6 flex items-center gap-2 text-xs">
          in bars
          <input class="input input-xs w-28" placeholder="all" bind:value={copy.countedBars} />
        </label>
      {/if}
    {/each}
  </fieldset>
</section>
