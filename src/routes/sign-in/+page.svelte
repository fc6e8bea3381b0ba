<script lang="ts">
  import { enhance } from '$app/forms';
  import Rosette from '$lib/components/Rosette.svelte';
  let { data, form } = $props();
</script>

<svelte:head><title>Sign in · Oculon</title></svelte:head>

<main class="grid min-h-screen place-items-center p-6">
  <div class="w-full max-w-sm">
    <div class="mb-8 flex items-center gap-4">
      <Rosette size={52} />
      <div>
        <h1 class="font-serif text-4xl leading-none font-semibold tracking-tight">Oculon</h1>
        <p class="mt-1.5 text-sm opacity-80">Fingering for classical guitar, both hands</p>
      </div>
    </div>
    <form
      method="POST"
      use:enhance
      class="bg-base-100 border-base-300 rounded-box flex flex-col gap-4 border p-6"
    >
      <div class="flex flex-col gap-1.5">
        <label for="email" class="text-sm font-medium">E-mail</label>
        <input
          id="email"
          name="email"
          type="email"
          autocomplete="username"
          required
          class="input w-full"
          defaultValue={form?.email ?? data.demo?.email ?? ''}
        />
      </div>
      <div class="flex flex-col gap-1.5">
        <label for="password" class="text-sm font-medium">Password</label>
        <input
          id="password"
          name="password"
          type="password"
          autocomplete="current-password"
          required
          class="input w-full"
          defaultValue={data.demo?.password ?? ''}
        />
      </div>
      {#if form?.message}
        <p role="alert" class="text-error text-sm">{form.message}</p>
      {/if}
      <button class="btn btn-primary">Sign in</button>
    </form>
    {#if data.isNew}
      <div class="border-base-300 mt-5 rounded-box border border-dashed p-4 text-sm" data-testid="no-account">
        <p class="font-medium">No studio is here yet</p>
        <p class="mt-1">
          Whoever looks after this server makes the first one:
          <span class="font-mono text-xs">./oculon admin --studio … --teacher … --email …</span>
        </p>
      </div>
    {/if}
    {#if data.demo}
      <div class="border-base-300 mt-5 rounded-box border border-dashed p-4 text-sm">
        <p class="font-medium">The demo: {data.demo.studio}</p>
        <p class="mt-1">
          <span class="font-mono">{data.demo.email}</span>, password
          <span class="font-mono">{data.demo.password}</span>
        </p>
      </div>
    {/if}
  </div>
</main>
