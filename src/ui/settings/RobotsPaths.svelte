<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import { benchInView } from '$ui/workspace/context';
	import TextInput from '$ui/parts/TextInput.svelte';
	import Setting from './Setting.svelte';
	import { closedInLines, readClosed } from '$ui/fields/robots';

	/** What robots.txt says: paths that robots are to leave alone, for all or for one by its name. */
	const bench = benchInView();

	let wrong = $state<string | undefined>();
	function set(text: string) {
		const read = readClosed(text);
		wrong = 'wrong' in read ? read.wrong : undefined;
		if ('closed' in read) bench.change('site', { robots: read.closed.length > 0 ? read.closed : null });
	}
</script>

<Setting
	name={wording.pathsThatRobotsLeaveAlone}
	isSet={(bench.working.site.robots ?? []).length > 0}
	hint={wording.oneOnALineSuchAsDrafts}
>
	<TextInput
		class="font-mono"
		lines={3}
		value={closedInLines(bench.working.site.robots ?? [])}
		{set}
		aria-invalid={wrong !== undefined}
	/>
</Setting>
{#if wrong !== undefined}<p class="mt-0.75 border-l-3 border-l-gone pl-1.75 text-sm" role="alert">
		{wording.isNoPathItBeginsWithA(wrong)}
	</p>{/if}
