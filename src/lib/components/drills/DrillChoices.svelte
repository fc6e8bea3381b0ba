<!-- The parameters of a drill: lists, and a field where something of one's own can be typed. -->
<script lang="ts">
  import { type Chosen, type DrillKind, type Parameter, parametersOf } from '$core/drills/drill';

  interface Props {
    kind: DrillKind;
    chosen: Chosen;
    set: (parameter: Parameter, value: string) => void;
  }
  let { kind, chosen, set }: Props = $props();

  /** Longer words than half the panel holds. */
  const NARROW_CHARACTERS = 15;
  const isWide = ({ typed, values }: Parameter) =>
    !!typed || values.some(([, words]) => words.length > NARROW_CHARACTERS);
  /** A value that is not in the list was typed. */
  const isTyped = ({ id, values }: Parameter) => !values.some(([value]) => value === chosen[id]);
</script>

<section aria-labelledby="drill-choices" class="flex flex-col gap-2">
  <h3 id="drill-choices" class="font-semibold">What is played</h3>
  <div class="grid grid-cols-2 gap-2">
    {#each parametersOf(kind) as parameter (parameter.id)}
      <label class="flex min-w-0 flex-col gap-0.5 text-xs" class:col-span-2={isWide(parameter)}>
        {parameter.label}
        <select
          class="select select-sm w-full"
          value={chosen[parameter.id]}
          onchange={(event) => set(parameter, event.currentTarget.value)}
        >
          {#each parameter.values as [value, words] (value)}<option {value}>{words}</option>{/each}
          {#if isTyped(parameter)}<option value={chosen[parameter.id]}>{chosen[parameter.id]}</option>{/if}
        </select>
      </label>
      {#if parameter.typed}
        <label class="col-span-2 -mt-1 flex items-center gap-2 text-xs">
          or type
          <input
            class="input input-xs min-w-0 flex-1"
            aria-label="{parameter.label}, typed"
            title={parameter.typed.hint}
            placeholder={isTyped(parameter) ? chosen[parameter.id] : ''}
            onchange={(event) => {
              if (event.currentTarget.value.trim()) set(parameter, event.currentTarget.value.trim());
            }}
          />
        </label>
      {/if}
    {/each}
  </div>
</section>
