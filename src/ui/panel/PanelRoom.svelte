<script lang="ts">
	import { wording } from '$ui/words/en/panel';
	import { onMount, untrack } from 'svelte';
	import Button from '$ui/parts/Button.svelte';
	import { PanelState } from './panel.svelte';
	import PanelPage from './PanelPage.svelte';

	/** The bench of one page at the width of a side bar, in a page of others: `host` is whose, where the site lets it. */
	let { site, host, isIn }: { site: string; host: string | null; isIn: boolean } = $props();

	let panel = $state.raw<PanelState | undefined>();
	onMount(() => {
		if (host === null || window.parent === window) return;
		const state = (panel = untrack(() => new PanelState(site, { origin: host, window: window.parent }, isIn)));
		const hear = (event: MessageEvent) =>
			event.source === window.parent ? state.hear(event) : state.hearWindow(event);
		window.addEventListener('message', hear);
		window.addEventListener('kephalon:signed-out', state.signedOut);
		state.begin();
		return () => {
			window.removeEventListener('message', hear);
			window.removeEventListener('kephalon:signed-out', state.signedOut);
			state.end();
		};
	});
</script>

<main class="min-h-full bg-ground" id="room" tabindex="-1">
	<h1 class="sr-only">{wording.howThisPageIsShared}</h1>
	{#if host === null}
		<p class="p-4">
			{wording.thisIsShownBesideAnEditorIn(site)}
		</p>
	{:else if panel?.asksToSignIn}
		<div class="p-4">
			<p class="mb-3">{wording.signInToSeeHowThisPage}</p>
			<Button look="main" onclick={() => panel?.signIn()}>{wording.signIn}</Button>
		</div>
	{:else if panel?.told}
		<p class="p-4" role="alert">{panel.told}</p>
		<p class="px-4"><Button onclick={() => panel?.read()}>{wording.askAgain}</Button></p>
	{:else if panel?.data}
		{#key panel.data.page.path + (panel.data.isThere ? '' : '?')}
			<PanelPage data={panel.data} typed={panel.typed} {panel} />
		{/key}
	{:else}
		<p class="p-4 text-ink-soft" role="status">{wording.lookingAtThePage}</p>
	{/if}
</main>
