<script lang="ts">
	import { wording } from '$ui/words/en/people';
	import Button from '$ui/parts/Button.svelte';

	/** A secret that was just made: it is told this once. */
	let {
		what,
		says,
		secret,
		taken,
		testid
	}: { what: string; says: string; secret: string; taken: () => void; testid: string } = $props();
</script>

<div class="told mt-3 border-l-4 border-l-sea bg-sheet px-3 py-2" role="status">
	<p><strong>{what}</strong> {says}</p>
	<p class="mt-1 font-mono break-all select-all" data-testid={testid}>{secret}</p>
	<p class="mt-2 flex gap-2">
		<Button onclick={() => navigator.clipboard.writeText(secret)}>{wording.copy}</Button>
		<Button onclick={taken}>{wording.iHaveIt}</Button>
	</p>
</div>
