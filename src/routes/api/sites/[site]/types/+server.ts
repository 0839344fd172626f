import { json } from '@sveltejs/kit';
import { STARTING_SETS, type ContentType } from '$core';
import { makeEdit } from '$server/edits/edit';
import { patiently } from '$server/store/patiently';
import { answering, problem, readRecord } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

interface Wanted {
	readonly name?: string;
	readonly set?: string;
}

/** Adds a content type, or puts a starting set into one: its fields are added, its rules replace those of the same tags. */
export const POST: RequestHandler = ({ params, request }) =>
	answering(async () => {
		const { name, set } = (await readRecord(request)) as unknown as Wanted;
		if (typeof name !== 'string' || !/^[\p{L}\p{N}][\p{L}\p{N} _-]{0,60}$/u.test(name))
			return problem(422, 'Refused', 'A type needs a name of letters, digits, spaces and hyphens, such as “recipe”.');
		const chosen = STARTING_SETS.find((one) => one.name === set);
		if (set !== undefined && !chosen) return problem(422, 'Refused', `There is no starting set "${set}".`);
		const store = openStore();
		await patiently(() =>
			makeEdit(
				store,
				params.site,
				{ origin: 'bench', kind: 'type', what: { name, ...(set && { set }) } },
				({ id, types }) => {
					const known = types.find((type) => type.name === name);
					const type: ContentType = known ?? { name, label: name, fields: [], rules: [] };
					const names = new Set(type.fields.map((field) => field.name));
					const tags = new Set(chosen?.rules.map((rule) => rule.tag));
					store.saveType(id, {
						...type,
						...(chosen && { kind: chosen.kind }),
						fields: [...type.fields, ...(chosen?.fields ?? []).filter((field) => !names.has(field.name))],
						rules: [...type.rules.filter((rule) => rule.language || !tags.has(rule.tag)), ...(chosen?.rules ?? [])]
					});
				}
			)
		);
		return json({ name });
	});
