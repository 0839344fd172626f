<script lang="ts">
	import { goto } from '$app/navigation';
	import { page as place } from '$app/state';
	import { roving } from '$ui/parts/roving';
	import { countWaiting, rememberPlace } from './place';
	import { roomAt, roomOfKey, ROOMS, type RoomId } from './rooms';

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
	// The bench tells its own places, which change without a navigation.
	let waiting = $state(0);
	$effect(() => {
		if (room === 'bench') return;
		rememberPlace(site, place.url.pathname + place.url.search);
		waiting = countWaiting(site);
	});
</script>

<svelte:window {onkeydown} />

<a class="skip" href="#room">To the content</a>
<nav class="rooms" aria-label="Rooms of the site">
	<a class="wordmark serif" href="/sites" aria-label="Kephalon, to the sites">Kephalon</a>
	<span class="site">{site}</span>
	<span class="places" {@attach roving('a')}>
		{#each ROOMS as { id, name, key } (id)}
			<a class="room" href={placeOf(id)} aria-current={id === room ? 'page' : undefined} title={key}>{name}</a>
		{/each}
	</span>
	{#if place.data.me?.kind === 'person'}<a class="me" href="/account">{place.data.me.name}</a>{/if}
	{#if waiting > 0}
		<a class="waiting" href={placeOf('bench')}
			><span class="pennant" aria-hidden="true"></span>{waiting === 1 ? 'One edit waits' : `${waiting} edits wait`} on the
			bench to be kept</a
		>
	{/if}
</nav>

<style>
	.rooms {
		display: flex;
		align-items: baseline;
		gap: 2px 16px;
		border-bottom: 1px solid var(--rule);
		background: var(--ground);
		padding: 3px 16px 0;
		flex-wrap: wrap;
		white-space: nowrap;
	}
	.wordmark {
		font-size: 16px;
	}
	.site {
		border-left: 1px solid var(--rule-strong);
		margin-right: 6px;
		padding-left: 12px;
		font-weight: 600;
	}
	.places {
		display: contents;
	}
	.waiting {
		margin-left: auto;
		color: var(--flag);
	}
	.me {
		order: 1;
		margin-left: auto;
		color: var(--ink-soft);
	}
	.me + .waiting {
		margin-left: 0;
	}
	.room {
		border-bottom: 3px solid transparent;
		padding: 3px 1px 4px;
		color: var(--ink-soft);
	}
	.room:hover {
		color: var(--sea);
	}
	.room[aria-current] {
		border-bottom-color: var(--sea);
		font-weight: 600;
		color: var(--ink);
	}
	.skip {
		position: absolute;
		left: -999px;
	}
	.skip:focus {
		top: 2px;
		left: 8px;
		z-index: 9;
		background: var(--sheet);
		padding: 3px 9px;
	}
</style>
