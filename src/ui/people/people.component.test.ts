import { flushSync } from 'svelte';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { mountIn, write } from '$ui/parts/mounting';
import NewPassword from './NewPassword.svelte';
import { addPasskey, canUsePasskeys, signInByPasskey } from './passkeys';
import SignInForm from './SignInForm.svelte';

/** What is typed stays where it is not right, and is sent once. */
let [target, takeOut] = [document.body, () => {}] as [HTMLElement, () => void];
afterEach(() => {
	takeOut();
	takeOut = () => {};
	vi.restoreAllMocks();
});
const later = async () => {
	await new Promise((resolve) => setTimeout(resolve, 0));
	flushSync();
};
const field = (at: number) => target.querySelectorAll('input')[at]!;
const send = () => target.querySelector('form')!.requestSubmit();

function answering(...answers: readonly (object | number)[]) {
	const asked: { address: string; body: unknown }[] = [];
	vi.spyOn(globalThis, 'fetch').mockImplementation(async (address, init) => {
		const answer = answers[Math.min(asked.length, answers.length - 1)]!;
		asked.push({
			address: String(address),
			body: init?.body === undefined ? undefined : JSON.parse(String(init.body))
		});
		return typeof answer === 'number'
			? new Response('{"detail":"Not right.","code":"sign-in-wrong"}', { status: answer })
			: new Response(JSON.stringify(answer));
	});
	return asked;
}

describe('signing in', () => {
	test('what is not right is told, and what was typed is still there', async () => {
		const asked = answering(401, { kind: 'person' });
		const done = vi.fn();
		({ target, takeOut } = mountIn(SignInForm, { done, name: 'Ada' }));
		expect(field(0).value).toBe('Ada');
		write(field(1), 'wrong');
		send();
		await later();
		await later();
		expect(target.querySelector('[role=alert]')!.textContent).toBe('Not right.');
		expect([field(0).value, field(1).value]).toEqual(['Ada', 'wrong']);
		expect(done).not.toHaveBeenCalled();
		write(field(1), 'right');
		send();
		send();
		await later();
		await later();
		expect(done).toHaveBeenCalledTimes(1);
		expect(asked.map(({ body }) => body)).toEqual([
			{ name: 'Ada', password: 'wrong' },
			{ name: 'Ada', password: 'right' }
		]);
		// It is not kept in the page.
		expect(field(1).value).toBe('');
	});
});

describe('a password that is chosen', () => {
	test('is written twice, and told where it is refused', async () => {
		const take = vi.fn((password: string) => Promise.resolve(password === 'good enough' ? '' : 'Too short.'));
		({ target, takeOut } = mountIn(NewPassword, { take, words: 'Go on' }));
		write(field(0), 'one');
		write(field(1), 'other');
		send();
		await later();
		expect(target.querySelector('[role=alert]')!.textContent).toBe('The two are not the same.');
		expect(take).not.toHaveBeenCalled();
		write(field(1), 'one');
		send();
		await later();
		expect(target.querySelector('[role=alert]')!.textContent).toBe('Too short.');
		write(field(0), 'good enough');
		write(field(1), 'good enough');
		send();
		await later();
		expect(target.querySelector('[role=alert]')).toBeNull();
		expect(field(0).value).toBe('');
	});
});

describe('passkeys', () => {
	test('are for names, not for addresses of machines', () => {
		vi.stubGlobal('PublicKeyCredential', class {});
		const at = (hostname: string) => {
			vi.stubGlobal('location', { hostname });
			return canUsePasskeys();
		};
		expect(['localhost', 'heads.example', '127.0.0.1', '[::1]'].map(at)).toEqual([true, true, false, false]);
		vi.unstubAllGlobals();
	});
	test('where the server refuses, no device is asked', async () => {
		answering(401);
		expect(await signInByPasskey()).toBe('Not right.');
		expect(await addPasskey('x')).toBe('Not right.');
	});
	test('where the device does not go on, that is told', async () => {
		answering({
			token: 't',
			options: {
				challenge: 'AAAA',
				rp: { id: 'x', name: 'x' },
				user: { id: 'AAAA', name: '', displayName: '' },
				pubKeyCredParams: []
			}
		});
		expect(await signInByPasskey()).toMatch(/^The device did not go on: /);
		expect(await addPasskey('x')).toMatch(/^The device did not go on: /);
	});
});
