<!-- What a newcomer needs to know, a line at a time; what has been read does not come again. -->
<script lang="ts">
  import { browser } from '$app/environment';

  const READ = 'oculon-hints-read';
  const HINTS = [
    'Arrows go from note to note of a voice; 0 to 4 set the finger, q to y the string, p i m a the letter.',
    'Pencil is a proposal. Enter inks what is selected, and everything else is planned around it.',
    'j steps through the piece moment by moment; Ctrl k finds everything by name; ? lists the keys.',
  ] as const;

  let read = $state(browser ? Number(localStorage.getItem(READ) ?? 0) : HINTS.length);
  function next() {
    read++;
    localStorage.setItem(READ, String(read));
  }
</script>

{#if read < HINTS.length}
  <p class="border-primary/60 flex items-start gap-2 border-l-2 pl-3 text-xs" data-testid="hint">
    <span>{HINTS[read]}</span>
    <button class="btn btn-xs ml-auto" onclick={next}>{read === HINTS.length - 1 ? 'Got it' : 'Next'}</button>
  </p>
{/if}
