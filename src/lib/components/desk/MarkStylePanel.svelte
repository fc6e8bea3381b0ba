<!-- How the page is marked: kept with the edition, undone like everything else. -->
<script lang="ts">
  import { PIECE, type STYLE_ATTRIBUTES, type ValueOf } from '$core/fingering/edition/attributes';
  import type { Desk } from '$lib/client/desk/desk.svelte';

  interface Props {
    desk: Desk;
  }
  let { desk }: Props = $props();

  type StyleAttribute = (typeof STYLE_ATTRIBUTES)[number];
  interface Row {
    readonly attribute: StyleAttribute;
    readonly label: string;
    readonly chosen: string;
    /** The first is what is taken where nothing is chosen. */
    readonly options: readonly (readonly [string, string])[];
  }
  const style = $derived(desk.session.markStyle);
  const rows = $derived<readonly Row[]>([
    {
      attribute: 'density',
      label: 'Marks',
      chosen: style.density,
      options: [
        ['full', 'on every note'],
        ['teaching', 'what a student needs'],
        ['sparse', 'the fewest'],
      ],
    },
    {
      attribute: 'markSize',
      label: 'Size',
      chosen: style.size,
      options: [
        ['normal', 'normal'],
        ['large', 'large'],
      ],
    },
    {
      attribute: 'pluckSide',
      label: 'Right hand',
      chosen: style.pluckSide,
      options: [
        ['byHand', 'p below, i m a above'],
        ['above', 'above the staff'],
        ['below', 'below the staff'],
      ],
    },
    {
      attribute: 'barreLetter',
      label: 'Barre',
      chosen: style.barreLetter,
      options: [
        ['C', 'C V'],
        ['B', 'B V'],
      ],
    },
    {
      attribute: 'barreFraction',
      label: 'Part of a barre',
      chosen: style.barreFraction,
      options: [
        ['sixths', '3/6'],
        ['halves', '½'],
      ],
    },
  ]);

  const set = ({ attribute, options }: Row, value: string) =>
    desk.set(PIECE, attribute, value === options[0]![0] ? null : (value as ValueOf<StyleAttribute>));
</script>

<section aria-labelledby="marks-heading" class="text-sm">
  <h2 id="marks-heading" class="mb-2 font-semibold">The marks on the page</h2>
  <div class="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2">
    {#each rows as row (row.attribute)}
      <label for="style-{row.attribute}">{row.label}</label>
      <select
        id="style-{row.attribute}"
        class="select select-sm w-full"
        value={row.chosen}
        onchange={(event) => set(row, event.currentTarget.value)}
      >
        {#each row.options as [value, words] (value)}
          <option {value}>{words}</option>
        {/each}
      </select>
    {/each}
  </div>
</section>
