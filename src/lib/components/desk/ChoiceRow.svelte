<!-- One question of a panel: its name and the choices, in the two columns of the grid around it. -->
<script lang="ts" generics="Id extends string, Null extends null = never">
  interface Props {
    label: string;
    choices: readonly Id[];
    nameOf: (id: Id) => string;
    value: Id | Null;
    choose: (id: Id | Null) => void;
    /** What stands for no choice, where there need be none. */
    none?: string;
    disabled?: boolean;
  }
  let { label, choices, nameOf, value, choose, none, disabled = false }: Props = $props();
  const id = $props.id();
</script>

<label for={id}>{label}</label>
<select
  {id}
  class="select select-sm w-full"
  value={value ?? ''}
  {disabled}
  onchange={(event) => choose((event.currentTarget.value || null) as Id | Null)}
>
  {#if none}<option value="">{none}</option>{/if}
  {#each choices as choice (choice)}<option value={choice}>{nameOf(choice)}</option>{/each}
</select>
