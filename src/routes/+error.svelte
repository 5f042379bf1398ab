<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>Corvel</title></svelte:head>
<main class="mx-auto max-w-xl p-10">
  <h1 class="font-display text-3xl">That did not work</h1>
  <p class="mt-3">{page.error?.message ?? 'Something went wrong.'}</p>
  <a class="mt-5 btn" href="/">Back to the songbook</a>
</main>
