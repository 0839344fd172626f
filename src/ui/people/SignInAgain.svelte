<script lang="ts">
	import { wording } from '$ui/words/en/people';
	import { onMount } from 'svelte';
	import Sheet from '$ui/parts/Sheet.svelte';
	import SignInForm from './SignInForm.svelte';

	/** A session has ended while one was at work: one signs in over what one does, and nothing of it is lost. */
	let { name }: { name: string } = $props();
	let open = $state(false);
	onMount(() => {
		const show = () => (open = true);
		window.addEventListener('kephalon:signed-out', show);
		return () => window.removeEventListener('kephalon:signed-out', show);
	});
	function back() {
		open = false;
		window.dispatchEvent(new Event('kephalon:signed-in'));
	}
</script>

<Sheet bind:open title={wording.youAreSignedOut}>
	<p class="my-2 text-ink-soft">{wording.yourSessionHasEndedWhatYou}</p>
	<SignInForm {name} done={back} />
</Sheet>
