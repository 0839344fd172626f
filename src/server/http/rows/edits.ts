import { authorName, makeEdit } from '../../edits/edit';
import { keepRule, readEdit } from '../../edits/rules';
import { keepSettings, readSettingsEdit } from '../../edits/settings';
import { editMeant, isLarge, takeBack } from '../../edits/takeBack';
import { actOnType, editOfSet, fieldUses, readTypeAction } from '../../edits/types';
import { refuse } from '../../errors';
import { countUnder, givenWayOf, reachOf } from '../../jobs/reach';
import { runJob } from '../../jobs/run';
import { livePages } from '../../web/records';
import { patiently } from '../../store/opening/patiently';
import { readFindingsRoom } from '../../web/findings';
import { watchedOrDone, type Rows } from '../route';

/** So many edits are held against each other at a time. */
const MOST_TRIES = 4;
/** So many edits are listed where nobody says how many. */
const USUAL_EDITS = 50;

/** Rules, settings and types, what an edit would do, what was done, and what is wrong. */
export const EDITS = {
	'PUT /sites/{site}/rules': async ({ store, site, body }) => {
		const { expected, ...data } = body;
		const wanted = readEdit(data);
		const { edit, revision } = await patiently(() => keepRule(store, site, wanted, { expected, origin: 'bench' }));
		return { revision, edit };
	},

	'PATCH /sites/{site}/settings': async ({ store, site, body }) => {
		const change = readSettingsEdit(body);
		const { edit, revision } = await patiently(() => keepSettings(store, site, change, 'bench'));
		return { revision, edit };
	},

	'POST /sites/{site}/types': async ({ store, site, body }) => {
		const action = readTypeAction({ ...body });
		const { result } = await patiently(() => actOnType(store, site, action, 'bench'));
		return { name: result };
	},

	'GET /sites/{site}/types/uses': ({ store, site, query: { type, field } }) => ({
		uses: fieldUses(store, site, type, field)
	}),

	'POST /sites/{site}/reach': async ({ store, site, body, say, signal }) => {
		const edit =
			'set' in body ? editOfSet(store, site, body) : 'changes' in body ? readSettingsEdit(body) : readEdit(body);
		const all = countUnder(store, site, edit);
		return { reach: await reachOf(store, site, edit, { signal, progress: (done) => say?.({ done, all }) }) };
	},

	'POST /sites/{site}/tries': async ({ store, site, stored, body: { edits, type, live: paths = [] }, signal }) => {
		if (edits.length > MOST_TRIES) throw refuse('too-many-tries', { most: MOST_TRIES });
		const { live, away } = await livePages(stored, type, paths);
		const input = { db: store.file, site, edits: edits.map(readEdit), live, ...(type !== undefined && { type }) };
		return [...away, ...(await runJob('tries', input, { signal }))];
	},

	'POST /sites/{site}/given-way': ({ store, site, body, say, signal }) => {
		const edit = readEdit(body);
		const all = countUnder(store, site, edit);
		return givenWayOf(store, site, edit, { signal, progress: (done) => say?.({ done, all }) });
	},

	'GET /sites/{site}/proposal': async ({ store, site, query: { type, tag }, signal }) => ({
		proposal: (await runJob('proposal', { db: store.file, site, type, tag }, { signal })) ?? null
	}),

	'GET /sites/{site}/edits': ({ store, stored: { id, revision }, query: { before, limit = USUAL_EDITS } }) => ({
		revision,
		edits: store.record.list(id, before, limit),
		next: store.record.next(id)
	}),

	'POST /sites/{site}/edits': async ({ store, site, body: { takeBack: which, removes }, say, signal }) => {
		const meant = editMeant(store, site, which);
		const inThread = meant !== undefined && isLarge(store, meant);
		const input = { db: store.file, site, ...(removes !== undefined && { removes }) };
		const { result, revision, edit } = await patiently(() =>
			inThread
				? runJob('takeBack', { ...input, edit: meant }, watchedOrDone({ say, signal }))
				: takeBack(store, site, which, 'bench', removes)
		);
		return { revision, edit, ...result };
	},

	'GET /sites/{site}/findings': ({ store, site, query: { wait } }) => readFindingsRoom(store, site, wait === '1'),

	'POST /sites/{site}/findings': async ({ store, site, body }) => {
		const { code, tag = '', path = '', reason = '', takeUp = false } = body;
		if (!takeUp && reason.trim() === '') throw refuse('suppression-needs-reason');
		const one = { code, tag, path };
		const what = { ...one, reason, do: takeUp ? 'take-up' : 'set-aside' };
		const { edit, revision } = await patiently(() =>
			makeEdit(store, site, { origin: 'findings', kind: 'aside', what }, ({ id }) => {
				if (takeUp) return store.state.suppressions.takeUp(id, one);
				const made = new Date().toISOString();
				store.state.suppressions.add(id, { ...one, reason, author: authorName(), made });
			})
		);
		return { revision, edit };
	}
} satisfies Rows;
