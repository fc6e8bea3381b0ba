<script lang="ts">
  import type { Finding } from '$core/fingering/report/plan';
  import type { Remedy } from '$core/fingering/report/remedies';
  import { findingText } from '$core/messages/en';
  import { remedyText } from '$core/messages/hand';

  interface Props {
    findings: readonly Finding[];
    barOf: (uid: string) => string;
    /** "B3". */
    nameOf: (uid: string) => string;
    go: (uid: string) => void;
    accept: (remedy: Remedy) => void;
  }
  let { findings, barOf, nameOf, go, accept }: Props = $props();

  const MOST_NAMES = 4;
  const namesOf = ({ uids }: Finding): string => {
    const names = [...new Set(uids.map(nameOf))].filter((name) => name !== '');
    return names.length <= MOST_NAMES
      ? names.join(', ')
      : `${names.slice(0, MOST_NAMES).join(', ')} and ${names.length - MOST_NAMES} more`;
  };
  const MOST_REMEDIES = 4;
  const remediesOf = (finding: Finding): readonly Remedy[] =>
    'remedies' in finding ? finding.remedies.slice(0, MOST_REMEDIES) : [];
</script>

<section aria-labelledby="findings-heading">
  <h2 id="findings-heading" class="mb-1 text-sm font-semibold">Findings</h2>
  {#if findings.length === 0}
    <p class="text-sm">Everything can be played and sounds as long as it is written.</p>
  {:else}
    <ul class="flex flex-col text-sm" data-testid="findings">
      {#each findings as finding, k (k)}
        <li class="border-base-300 border-t">
          <button
            class="hover:bg-base-200 w-full cursor-pointer py-1.5 text-left"
            onclick={() => go(finding.uids[0] ?? '')}
          >
            <span class="font-medium">Bar {barOf(finding.uids[0] ?? '')}, {namesOf(finding)}.</span>
            {findingText(finding)}
          </button>
          {#if remediesOf(finding).length > 0}
            <div class="flex flex-wrap gap-1 pb-1.5" data-testid="remedies">
              {#each remediesOf(finding) as remedy (remedy.kind + remedy.target + remedy.attribute)}
                <button class="btn btn-xs btn-outline font-normal" onclick={() => accept(remedy)}
                  >{remedyText(remedy)}</button
                >
              {/each}
            </div>
          {/if}
        </li>
      {/each}
    </ul>
  {/if}
</section>
