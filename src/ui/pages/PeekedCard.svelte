<script lang="ts">
	import { wording } from '$ui/words/en/pages';
	import { Popover } from 'bits-ui';
	import { READERS } from '$core';
	import { call, isRefused } from '$ui/client';
	import { lookAt } from '$ui/cards/pictureLook';
	import ReaderCard from '$ui/cards/ReaderCard.svelte';
	import { cardBy } from '$ui/releases/changes';
	import { landmarkOf } from '$ui/parts/shown/landmark';
	import { LEAF } from '$ui/parts/looks';
	import type { StandIn } from '$ui/parts/words';

	/** The card of a page as a feed shows it, beside its row: as it would be with a release now. */
	let {
		site,
		path,
		at,
		base,
		standIn,
		close
	}: {
		site: string;
		path: string;
		at: HTMLElement;
		base: string;
		standIn: StandIn;
		close: () => void;
	} = $props();
	const reader = READERS[0]!;
	const asked = $derived(call('GET /sites/{site}/bench', { site, query: { path } }));
	const shown = (address: string) => lookAt(address, base, standIn, []);
</script>

<Popover.Root bind:open={() => true, (open) => !open && close()}>
	<Popover.Portal to={landmarkOf(at)}>
		<Popover.Content
			strategy="fixed"
			class={[LEAF, 'pointer-events-none w-80']}
			customAnchor={at}
			sideOffset={6}
			align="start"
			collisionPadding={8}
			trapFocus={false}
			onOpenAutoFocus={(event) => event.preventDefault()}
			onCloseAutoFocus={(event) => event.preventDefault()}
			data-testid="peeked"
			aria-label={wording.theCardOf(path)}
		>
			{#await asked}<p class="text-ink-soft">{wording.theCardOf2(path)}</p>
			{:then data}
				{@const card = isRefused(data) ? undefined : cardBy(reader, data.server.head)}
				{#if isRefused(data)}<p class="text-gone">{data.refused}</p>
				{:else if card}<ReaderCard {card} {shown} />
				{:else}<p>{wording.noPageNoCard}</p>{/if}
			{/await}
		</Popover.Content>
	</Popover.Portal>
</Popover.Root>
