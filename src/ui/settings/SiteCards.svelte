<script lang="ts">
	import { wording } from '$ui/words/en/settings';
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
	<Setting name={wording.authorOfPagesThatNameNone} hint={wording.theSiteHasATemplateOfIts}>
		<input class="font-mono" value={author} disabled />
	</Setting>
{:else}
	<Setting name={wording.authorOfPagesThatNameNone} isSet={author !== ''}
		><TextInput value={by ?? ''} set={setBy} /></Setting
	>
{/if}
<Setting name={wording.sizeOfCards} isSet={templateOf('twitter:card') !== ''} hint={wording.twitterCardWhereAPagesType}>
	<Select
		value={templateOf('twitter:card')}
		choices={[
			['', wording.asItsPictureAllows],
			['summary_large_image', wording.alwaysLarge],
			['summary', wording.alwaysSmall]
		]}
		set={(card) => setRule('twitter:card', card)}
	/>
</Setting>
<Setting name={wording.leanHeads} isSet={bench.working.site.lean === true} hint={wording.leavesOutTwitterCardTagsThat}>
	<input
		type="checkbox"
		checked={bench.working.site.lean === true}
		onchange={(event) => bench.change('site', { lean: event.currentTarget.checked || null })}
	/>
</Setting>
