<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>Oculon</title></svelte:head>
<main class="mx-auto flex min-h-screen max-w-md flex-col items-start justify-center gap-4 p-8">
  <h1 class="font-serif text-3xl">{page.error?.message ?? 'Something went wrong.'}</h1>
  <a class="btn btn-primary" href="/shelf">To the shelf</a>
</main>
