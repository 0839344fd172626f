import { expect, test, vi } from 'vitest';
import { watch } from '$ui/parts/watching.svelte';
import { Drafts } from './drafts.svelte';

test('an edit that is tried out is there for an instant; nothing is asked, and a draft is left as it is', () => {
	const asked = vi.spyOn(globalThis, 'fetch');
	const drafts = new Drafts({ siteName: 'S', data: { count: { all: 9 } }, isBroken: () => false } as never);
	const edit = {
		place: { layer: 'type', name: 'isle' },
		tag: 'title',
		body: { kind: 'template', template: 'Tried' }
	} as const;
	const seen: number[] = [];
	const end = watch(() => seen.push(drafts.waiting));
	drafts.tryOut(edit, { seen: 0, all: 9 });
	expect(seen).toContain(1);
	expect(drafts.waiting).toBe(0);
	drafts.put({ ...edit, body: { kind: 'template', template: 'Meant' } }, 'Meant', null);
	drafts.tryOut(edit, { seen: 0, all: 9 });
	expect(Object.values(drafts.all).map(({ text }) => text)).toEqual(['Meant']);
	drafts.discard(Object.keys(drafts.all)[0] as string);
	end();
	expect(asked).not.toHaveBeenCalled();
});
