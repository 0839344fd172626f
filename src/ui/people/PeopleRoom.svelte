<script lang="ts">
	import { wording } from '$ui/words/en/people';
	import { momentInWords } from '$ui/words/speaking';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import type { ComponentProps } from 'svelte';
	import { refresh } from '$ui/parts/refresh';
	import { ROLES, type Role, type SiteRole } from '$core';
	import { call, isRefused, type Refused } from '$ui/client';
	import type { TrailLine } from '$server/store/people/trail';
	import HooksPart from './HooksPart.svelte';
	import KeysPart from './KeysPart.svelte';
	import PanelPart from './PanelPart.svelte';
	import { areaInWords, lineInWords, listIn } from './words';

	interface Person {
		readonly name: string;
		readonly isOwner: boolean;
		readonly isLocked: boolean;
		readonly isInvited: boolean;
		readonly roles: Readonly<Record<string, SiteRole>>;
	}
	/** Who may come in, what each may do where, and what was done beside edits. */
	let {
		people,
		sites,
		keys,
		hooks,
		panels,
		trail,
		ownsAll,
		canMail,
		me
	}: {
		people: readonly Person[];
		/** Those that one owns. */
		sites: readonly string[];
		keys: ComponentProps<typeof KeysPart>['keys'];
		hooks: ComponentProps<typeof HooksPart>['hooks'];
		panels: ComponentProps<typeof PanelPart>['panels'];
		/** Whether one owns every site; who owns some sees to roles and keys there. */
		ownsAll: boolean;
		/** Whether invitations can be sent. */
		canMail: boolean;
		trail: readonly TrailLine[];
		me: { readonly name: string };
	} = $props();

	let refused = $state('');
	let invitation = $state<
		{ readonly name: string; readonly link: string; readonly sent?: string; readonly unsent?: string } | undefined
	>();
	let mail = $state('');
	let name = $state('');
	let owns = $state(false);

	/** What was asked is told where it is refused, and seen where it is done. */
	async function ask<T extends object>(
		asking: Promise<T>,
		done: (answer: Exclude<T, Refused>) => void = () => undefined
	) {
		const answer = await asking;
		if (isRefused(answer)) return void (refused = answer.refused);
		refused = '';
		done(answer as Exclude<T, Refused>);
		// With the first one this page is theirs alone: it stays until their link is taken down.
		if (people.length > 0) await refresh();
	}
	/** Who owns some sites does not see all people: by name one becomes a reader, and is in the list from then on. */
	async function giveByName(event: SubmitEvent) {
		event.preventDefault();
		const body = { name, role: 'reader' as const, area: {} };
		await ask(call('PUT /sites/{site}/people', { site: sites[0] ?? '', body }), () => (name = ''));
	}
	const linkOf = (secret: string) => `${location.origin}/invited#${secret}`;
	async function add(event: SubmitEvent) {
		event.preventDefault();
		const body = { name, isOwner: owns, ...(mail && { mail }) };
		await ask(call('POST /people', { body }), ({ invitation: secret, ...more }) => {
			invitation = { name, link: linkOf(secret), ...more };
			[name, mail] = ['', ''];
			owns = false;
		});
	}
	type Done = Parameters<typeof call<'PATCH /people'>>[1]['body']['do'];
	const act = (person: string, what: Done) =>
		ask(call('PATCH /people', { body: { name: person, do: what } }), (answer) => {
			if (answer.invitation) invitation = { name: person, link: linkOf(answer.invitation) };
		});

	/** The role that is being given. */
	let giving = $state<string | undefined>();
	let site = $state('');
	let role = $state<Role | 'none'>('editor');
	let paths = $state('');
	let types = $state('');
	let languages = $state('');
	const hasArea = $derived(role === 'editor' || role === 'builder');
	function begin(person: Person) {
		giving = giving === person.name ? undefined : person.name;
		site = sites[0] ?? '';
		[role, paths, types, languages] = ['editor', '', '', ''];
	}
	async function give(event: SubmitEvent) {
		event.preventDefault();
		const area = hasArea ? { paths: listIn(paths), types: listIn(types), languages: listIn(languages) } : {};
		const body = { name: giving as string, role: role === 'none' ? null : role, area };
		await ask(call('PUT /sites/{site}/people', { site, body }), () => (giving = undefined));
	}
</script>

<main class="mx-auto max-w-4xl px-6 py-10">
	<p><a class="font-serif italic" href="/sites">{wording.kephalon}</a></p>
	<h1 class="mt-3 text-xl font-semibold">{wording.people}</h1>
	<p class="mt-1 text-ink-soft">
		{people.length === 0 ? wording.thereIsNobodyWhoeverIsAtThis : wording.ownersSeeToPeopleAndKeys}
	</p>
	{#if refused}<p class="fault mt-3 text-gone" role="alert">{refused}</p>{/if}
	{#if invitation}
		<div class="mt-4 border-l-4 border-l-sea bg-sheet px-3 py-2" role="status">
			<p>
				{#if invitation.sent}<strong>{wording.sentTo(invitation.sent)}</strong>
				{:else}{#if invitation.unsent}{invitation.unsent}{/if}
					<strong>{wording.handThisLinkTo(invitation.name)}</strong>{/if}
				{wording.itIsShownThisOnceWorksOnce}
			</p>
			<p class="mt-1 font-mono break-all select-all" data-testid="invitation">{invitation.link}</p>
			<p class="mt-2 flex gap-2">
				<Button onclick={() => navigator.clipboard.writeText(invitation!.link)}>{wording.copy}</Button>
				{#if people.length === 0}<Button look="main" href={invitation.link}>{wording.comeInAs(invitation.name)}</Button>
				{:else}<Button onclick={() => (invitation = undefined)}>{wording.iHaveIt}</Button>{/if}
			</p>
		</div>
	{/if}
	<ul class="mt-5">
		{#each people as person (person.name)}
			<li class="person border-t border-t-rule py-2" data-person={person.name}>
				<div class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
					<strong class="text-base">{person.name}</strong>
					{#if person.isLocked}<span class="fault text-gone">{wording.lockedOut}</span>{:else if person.isInvited}<span
							class="text-ink-soft">{wording.invited}</span
						>{/if}
					{#if me.name === person.name}<span class="text-ink-soft">{wording.you}</span>{/if}
					<span class="ml-auto flex flex-wrap gap-3 text-sm">
						{#if sites.length > 0}<Button
								look="link"
								aria-expanded={giving === person.name}
								onclick={() => begin(person)}>{wording.giveARole}</Button
							>{/if}
						{#if ownsAll}<Button look="link" onclick={() => act(person.name, person.isOwner ? 'disown' : 'own')}
								>{person.isOwner ? wording.noOwnerOfAllAnyMore : wording.ownerOfEverySite}</Button
							>{/if}
						<!-- Nobody shuts themselves out by a slip of the hand. -->
						{#if ownsAll && me.name !== person.name}
							<Button look="link" onclick={() => act(person.name, person.isLocked ? 'unlock' : 'lock')}
								>{person.isLocked ? wording.letInAgain : wording.lockOut}</Button
							>
							<Button look="link" onclick={() => act(person.name, 'reset')}>{wording.inviteAnew}</Button>
							<Button look="link" onclick={() => act(person.name, 'drop')}>{wording.takeAway}</Button>
						{/if}
					</span>
				</div>
				<ul class="text-ink-soft">
					{#if person.isOwner}<li>{wording.ownerOfEverySite2}</li>{/if}
					{#each Object.entries(person.roles) as [at, one] (at)}<li>
							{wording.of(one.role, at, areaInWords(one.area))}
						</li>{/each}
					{#if !person.isOwner && Object.keys(person.roles).length === 0}<li>{wording.nothingYet2}</li>{/if}
				</ul>
				{#if giving === person.name}
					<form class="mt-2 grid max-w-xl gap-2" onsubmit={give}>
						<div class="flex flex-wrap gap-3">
							<label class="grid gap-1"
								>{wording.site} <Select value={site} choices={sites} set={(one) => (site = one)} /></label
							>
							<label class="grid gap-1"
								>{wording.role}
								<Select
									value={role}
									choices={[...ROLES, ['none', wording.nothingAnyMore]]}
									set={(one) => (role = one)}
								/></label
							>
						</div>
						{#if hasArea}
							<p class="text-ink-soft">{wording.onlySomePagesByAnyMixOutside}</p>
							<div class="flex flex-wrap gap-3">
								<label class="grid gap-1"
									>{wording.paths} <input class="font-mono" placeholder="/walks/*" bind:value={paths} /></label
								>
								<label class="grid gap-1"
									>{wording.types} <input class="font-mono" placeholder={wording.walk} bind:value={types} /></label
								>
								<label class="grid gap-1"
									>{wording.languages} <input class="font-mono" placeholder="fr" bind:value={languages} /></label
								>
							</div>
						{/if}
						<p><Button look="main">{wording.giveIt}</Button></p>
					</form>
				{/if}
			</li>
		{/each}
	</ul>
	{#if ownsAll}
		<form class="mt-6 flex flex-wrap items-end gap-3" onsubmit={add}>
			<label class="grid gap-1">{wording.aNewPersonsName} <input required maxlength="80" bind:value={name} /></label>
			{#if canMail}<label class="grid gap-1"
					>{wording.mailAddressToSendIt} <input type="email" maxlength="260" bind:value={mail} /></label
				>{/if}
			{#if people.length > 0}<label class="flex items-center gap-2 pb-1"
					><input type="checkbox" bind:checked={owns} /> {wording.ownerOfEverySite2}</label
				>{/if}
			<Button look="main">{wording.invite}</Button>
		</form>
	{:else}
		<p class="mt-4 text-ink-soft">
			{wording.peopleAreAddedByWhoOwnsEvery}
		</p>
		<form class="mt-2 flex flex-wrap items-end gap-3" onsubmit={giveByName}>
			<label class="grid gap-1">{wording.name} <input required maxlength="80" bind:value={name} /></label>
			<Button look="main">{wording.letThemLookAt(sites[0] ?? '')}</Button>
		</form>
	{/if}
	{#if sites.length > 0}
		<KeysPart {keys} />
		<HooksPart {hooks} />
		<PanelPart {panels} />
	{/if}
	<h2 class="mt-10 mb-1 font-semibold">{wording.whatWasDoneBesideEdits}</h2>
	<ol class="text-sm">
		{#each trail as line (line.id)}
			<li class="line border-t border-t-rule py-0.5">
				<span class="font-mono text-ink-soft">{momentInWords(line.at)}</span>
				{lineInWords(line)}
			</li>
		{:else}<li class="text-ink-soft">{wording.nothingYet}</li>{/each}
	</ol>
</main>
