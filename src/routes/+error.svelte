<script lang="ts">
	import { page } from '$app/state';
</script>

<svelte:head><title>{page.status} · Kephalon</title></svelte:head>

<main class="mx-auto max-w-xl px-6 py-16">
	<h1 class="serif text-3xl">{page.status === 404 ? 'Nothing here' : 'That did not work'}</h1>
	<p class="mt-4">{page.error?.message}</p>
	<p class="mt-4"><a class="underline" href="/">To the sites</a></p>
</main>
