<script lang="ts">
	import Select from '$ui/parts/select/Select.svelte';
	import { benchInView } from '$ui/workspace/context';
	import TextInput from '$ui/parts/TextInput.svelte';
	import Setting from './Setting.svelte';

	/** What the site says of cards and authors, and how lean its heads are. */
	const bench = benchInView();

	const templateOf = (tag: string) => {
		const body = bench.bodyFor('site', tag);
		return body?.kind === 'template' ? body.template : '';
	};
	const setRule = (tag: string, template: string) =>
		bench.proposeFor('site', tag, template === '' ? null : { kind: 'template', template });
	const AUTHOR = /^\{page\.author\.name \?\? "((?:[^"\\]|\\.)*)"\}$/;
	const author = $derived(templateOf('author'));
	const by = $derived(AUTHOR.exec(author)?.[1]?.replaceAll(/\\(.)/g, '$1'));
	function setBy(text: string) {
		const name = text.trim().replaceAll(/["\\]/g, '\\$&');
		setRule('author', name === '' ? '' : `{page.author.name ?? "${name}"}`);
	}
</script>

{#if author !== '' && by === undefined}
	<Setting
		name="Author of pages that name none"
		hint="The site has a template of its own for it: change it at the tag."
	>
		<input class="font-mono" value={author} disabled />
	</Setting>
{:else}
	<Setting name="Author of pages that name none" isSet={author !== ''}
		><TextInput value={by ?? ''} set={setBy} /></Setting
	>
{/if}
<Setting
	name="Size of cards"
	isSet={templateOf('twitter:card') !== ''}
	hint="twitter:card, where a page’s type says nothing else."
>
	<Select
		value={templateOf('twitter:card')}
		choices={[
			['', 'As its picture allows'],
			['summary_large_image', 'Always large'],
			['summary', 'Always small']
		]}
		set={(card) => setRule('twitter:card', card)}
	/>
</Setting>
<Setting
	name="Lean heads"
	isSet={bench.working.site.lean === true}
	hint="Leaves out Twitter card tags that say the same as their Open Graph twin."
>
	<input
		type="checkbox"
		checked={bench.working.site.lean === true}
		onchange={(event) => bench.change('site', { lean: event.currentTarget.checked || null })}
	/>
</Setting>
