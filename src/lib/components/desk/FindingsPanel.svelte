<script lang="ts">
  import type { Finding } from '$core/fingering/plan';
  import { findingText } from '$core/messages/en';

  interface Props {
    findings: readonly Finding[];
    barOf: (uid: string) => string;
    go: (uid: string) => void;
  }
  let { findings, barOf, go }: Props = $props();
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
            <span class="font-medium">Bar {barOf(finding.uids[0] ?? '')}.</span>
            {findingText(finding)}
          </button>
        </li>
      {/each}
    </ul>
  {/if}
</section>
