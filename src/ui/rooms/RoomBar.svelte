<script lang="ts">
	import { wording } from '$ui/words/en/rooms';
	import WorksInBar from '$ui/works/WorksInBar.svelte';
	import { goto } from '$app/navigation';
	import { page as place } from '$app/state';
	import { roving } from '$ui/parts/roving';
	import LookMenu from '$ui/look/LookMenu.svelte';
	import { countWaiting, rememberPlace } from '$ui/places/place';
	import { roomAt, roomOfKey, ROOMS, type RoomId } from '$ui/places/rooms';

	/** The one bar of a site: its name, and its rooms. */
	let {
		site,
		room,
		path
	}: {
		site: string;
		room: RoomId;
		/** The page one is at, which the readers and the bench take along. */ path?: string | undefined;
	} = $props();

	const placeOf = (wanted: RoomId) =>
		path !== undefined && (wanted === 'readers' || wanted === 'bench')
			? `${roomAt(wanted, site)}?page=${encodeURIComponent(path)}`
			: roomAt(wanted, site);
	function onkeydown(event: KeyboardEvent) {
		const wanted = roomOfKey(event);
		if (!wanted || wanted === room || event.defaultPrevented) return;
		event.preventDefault();
		void goto(placeOf(wanted));
	}
	/** These rooms hold what waits themselves, and say so in their own bar. */
	const holdsEdits = $derived(room === 'bench' || room === 'library');
	// The bench tells its own places, which change without a navigation.
	let waiting = $state(0);
	let [isOpen, wasOpened] = $state([false, false]);
	$effect(() => {
		if (room === 'bench') return;
		rememberPlace(site, place.url.pathname + place.url.search);
		waiting = holdsEdits ? 0 : countWaiting(site);
	});
</script>

<svelte:window {onkeydown} />

<a
	class="absolute -start-249.75 focus:start-2 focus:top-0.5 focus:z-9 focus:bg-sheet focus:px-2.25 focus:py-0.75"
	href="#room">{wording.toTheContent}</a
>
<nav
	class="rooms flex flex-wrap items-baseline gap-x-4 gap-y-0.5 border-b border-b-rule bg-ground px-4 pt-0.75 pb-0 whitespace-nowrap"
	aria-label={wording.roomsOfTheSite}
>
	<a class="font-serif text-md font-bold italic" href="/sites" aria-label={wording.kephalonToTheSites}
		>{wording.kephalon}</a
	>
	<span class="site mr-1.5 border-l border-l-rule-strong pl-3 font-semibold">{site}</span>
	<span class="places contents" {@attach roving('a')}>
		{#each ROOMS as { id, name, key } (id)}
			<a
				class="room border-b-3 border-b-transparent px-px pt-0.75 pb-1 text-ink-soft hover:text-sea [&[aria-current]]:border-b-sea [&[aria-current]]:font-semibold [&[aria-current]]:text-ink"
				href={placeOf(id)}
				aria-current={id === room ? 'page' : undefined}
				data-tip={key}>{name}</a
			>
		{/each}
	</span>
	<span class="ml-auto flex flex-wrap items-baseline gap-x-4 text-ink-soft">
		<WorksInBar {site} />
		{#if waiting > 0}
			<button class="waiting text-flag underline underline-offset-2" onclick={() => (isOpen = wasOpened = true)}
				><span class="pennant" aria-hidden="true"></span>{wording.toBeKept(
					waiting === 1 ? wording.oneEditWaits : wording.editsWait(waiting)
				)}</button
			>
		{/if}
		{#if place.data.me?.kind === 'person'}<a class="me" href="/account">{place.data.me.name}</a>{/if}
		<LookMenu />
	</span>
</nav>
{#if wasOpened}
	{#await import('$ui/workspace/WaitingElsewhere.svelte') then { default: WaitingElsewhere }}
		<WaitingElsewhere bind:open={isOpen} {site} left={(count) => (waiting = count)} />
	{/await}
{/if}
