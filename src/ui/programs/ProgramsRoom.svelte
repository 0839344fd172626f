<script lang="ts">
	import { wording } from '$ui/words/en/programs';
	import { counted } from '$ui/words/speaking';
	import Button from '$ui/parts/Button.svelte';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import { addressFor, foundAmong, routesIn, type Description, type FieldRow, type Route } from './described';

	/** Every route, described as it is checked, and tried with one's own rights. */
	let { description, site, asked }: { description: Description; site: string; asked: string } = $props();

	const routes = $derived(routesIn(description));
	const base = $derived(description.servers[0]?.url ?? '');
	let typed = $state('');
	// svelte-ignore state_referenced_locally
	let chosen = $state(asked);
	const found = $derived(foundAmong(routes, typed));
	const groups = $derived(
		description.tags
			.map((tag) => ({ ...tag, routes: found.filter((one) => one.tag === tag.name) }))
			.filter((group) => group.routes.length > 0)
	);
	const route = $derived(routes.find(({ id }) => id === chosen) ?? routes[0]);

	/** What is written for the parts and the body of the chosen route. */
	let values = $state<Record<string, string>>({});
	let body = $state('');
	let answer = $state.raw<
		{ readonly status: string; readonly ok: boolean; readonly headers: string; readonly text: string } | undefined
	>();
	let isAsking = $state(false);
	$effect(() => {
		if (route) begin(route);
	});
	function begin(one: Route) {
		values = Object.fromEntries(one.parts.map(({ name, example }) => [name, name === 'site' ? site : example]));
		body = one.body?.example ?? '';
		answer = undefined;
	}
	function choose(id: string) {
		chosen = id;
		history.replaceState(history.state, '', `?route=${encodeURIComponent(id)}`);
	}
	const missing = $derived(
		route?.parts.filter(({ name, isNeeded }) => isNeeded && !values[name]).map(({ name }) => name) ?? []
	);
	/** So much of an answer is shown (characters). */
	const MOST = 20_000;
	async function send(event: SubmitEvent) {
		event.preventDefault();
		if (!route) return;
		isAsking = true;
		const mine = route.id;
		const came = await fetch(addressFor(base, route, values), {
			method: route.method,
			...(route.body && { headers: { 'content-type': route.body.media }, body })
		})
			.then(async (one) => ({
				...{ status: `${one.status} ${one.statusText}`, ok: one.ok, text: await told(one) },
				headers: ['content-type', 'etag', 'location', 'retry-after']
					.flatMap((name) => (one.headers.get(name) ? [`${name}: ${one.headers.get(name)}`] : []))
					.join('\n')
			}))
			.catch((error: Error) => ({ status: wording.nothingWasAnswered, ok: false, headers: '', text: error.message }));
		isAsking = false;
		if (route.id === mine) answer = came;
	}
	async function told(one: Response): Promise<string> {
		const type = one.headers.get('content-type') ?? '';
		if (!/^text\/|json|xml/.test(type)) return wording.bytesNoText(counted((await one.blob()).size));
		const text = pretty(await one.text());
		return text.length > MOST ? wording.andMore(text.slice(0, MOST), counted(text.length - MOST)) : text;
	}
	function pretty(text: string): string {
		try {
			return JSON.stringify(JSON.parse(text), null, 2);
		} catch {
			return text;
		}
	}
</script>

{#snippet table(fields: readonly FieldRow[])}
	<table class="w-full text-sm">
		<tbody>
			{#each fields as { name, kind, isNeeded, says, depth }, at (at)}
				<tr class="border-t border-t-rule align-baseline">
					<th class="py-0.75 pr-3 text-left font-mono font-normal whitespace-nowrap" scope="row"
						><span aria-hidden="true">{'  '.repeat(depth)}</span>{name}</th
					>
					<td class="max-w-60 py-0.75 pr-3 wrap-anywhere text-ink-soft">{kind}{isNeeded ? '' : wording.mayBeMissing}</td
					>
					<td class="py-0.75">{says}</td>
				</tr>
			{/each}
		</tbody>
	</table>
{/snippet}

<div class="grid h-screen grid-cols-[340px_minmax(0,1fr)] max-middle:h-auto max-middle:grid-cols-1">
	<nav class="overflow-y-auto border-r border-r-rule-strong bg-sheet p-4" aria-label={wording.routes}>
		<p><a class="font-serif font-semibold italic" href="/">{wording.kephalon}</a></p>
		<input
			class="mt-2 w-full"
			type="search"
			aria-label={wording.findARoute}
			placeholder={wording.findARoutePushReleaseHead}
			bind:value={typed}
		/>
		{#each groups as { name, description: about, routes: all } (name)}
			<h2 class="mt-4 font-semibold" data-tip={about}>{name}</h2>
			<ul>
				{#each all as one (one.id)}
					<li>
						<button
							class="grid w-full grid-cols-[52px_minmax(0,1fr)] gap-x-2 px-1 py-0.5 text-left text-sm hover:bg-sunk aria-current:bg-sea-wash"
							aria-current={one.id === route?.id ? 'true' : undefined}
							onclick={() => choose(one.id)}
						>
							<span class="font-mono text-xs leading-5 text-ink-soft">{one.method}</span>
							<span class="min-w-0"
								><span class="block font-mono text-xs leading-5 wrap-anywhere">{one.path}</span>{one.summary}</span
							>
						</button>
					</li>
				{/each}
			</ul>
		{:else}<p class="mt-4 text-ink-soft">{wording.noRouteHasThatInItsWords}</p>{/each}
	</nav>
	<main class="overflow-y-auto px-6 py-4" id="room">
		<h1 class="font-serif text-lg">{wording.forPrograms}</h1>
		<p class="max-w-190 text-ink-soft">
			{wording.theWholeOfIt(description.info.description ?? '')}
			<a class="underline underline-offset-2" href="{base}/openapi.json">openapi.json</a>.
		</p>
		{#if route}
			<article class="mt-5 max-w-220" aria-labelledby="route">
				<h2 class="font-mono text-md font-semibold wrap-anywhere" id="route">{route.method} {base}{route.path}</h2>
				<p class="mt-1">{route.says}</p>
				<p class="text-sm text-ink-soft">
					{route.right === 'everyone' ? wording.everybodyMayAsk : wording.asksFor(route.right)}
				</p>
				<form class="mt-3 grid gap-2.5 border-l-4 border-l-sea bg-sheet px-4 py-3" onsubmit={send}>
					{#each route.parts as { name, where, isNeeded, says } (name)}
						<label class="grid gap-0.5"
							><span
								><span class="font-mono">{name}</span>
								<span class="text-sm text-ink-soft">{where}{isNeeded ? '' : wording.mayBeMissing}. {says}</span></span
							>
							<input class="font-mono" bind:value={values[name]} /></label
						>
					{/each}
					{#if route.body}
						<label class="grid gap-0.5"
							><span>{wording.whatIsSent} <span class="text-sm text-ink-soft">{route.body.media}</span></span>
							<textarea class="font-mono text-sm" rows={Math.min(14, body.split('\n').length + 1)} bind:value={body}
							></textarea></label
						>
					{/if}
					<p class="flex flex-wrap items-baseline gap-3">
						<Button look="main" disabled={isAsking || missing.length > 0}>{wording.send(route.method)}</Button>
						<span class="text-sm text-ink-soft"
							>{missing.length > 0
								? wording.sayFirst(missing.join(', '))
								: route.method === 'GET'
									? wording.askedWithYourOwnRights
									: wording.askedWithYourOwnRightsItDoes}</span
						>
					</p>
					{#if answer}
						<div role="status" data-testid="answer">
							<p class={['font-semibold', answer.ok ? 'text-sea' : 'text-gone']}>{answer.status}</p>
							{#if answer.headers}<pre class="font-mono text-xs text-ink-soft">{answer.headers}</pre>{/if}
							<!-- It scrolls: the keys reach it. -->
							<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
							<pre
								class="max-h-100 overflow-auto border-t border-t-rule pt-1 font-mono text-xs"
								tabindex="0"
								aria-label={wording.whatWasAnswered}>{answer.text}</pre>
						</div>
					{/if}
				</form>
				{#if route.body && route.body.fields.length > 0}
					<h3 class="mt-4 font-semibold">{wording.whatIsSent}</h3>
					{@render table(route.body.fields)}
				{/if}
				<h3 class="mt-4 font-semibold">{wording.whatIsAnswered}</h3>
				{#each route.answers as { status, says, fields } (status)}
					{#if fields.length > 0}
						<Disclosure class="mt-1" label="{status}: {says}" open={status === '200'}
							>{@render table(fields)}</Disclosure
						>
					{:else}<p class="mt-1">{status}: {says}</p>{/if}
				{/each}
			</article>
		{/if}
	</main>
</div>
