import { wording } from '$ui/words/en/people';
import { call, isRefused } from '$ui/client';

/** Whether this browser can use passkeys here: they are bound to a name, and an address of a machine is none. */
export const canUsePasskeys = (): boolean =>
	'PublicKeyCredential' in window && !/^(?:[\d.]+|\[.*\])$/.test(location.hostname);

/** What a device does not do, or was not let do, in a sentence. */
const told = (error: unknown): string =>
	error instanceof Error && error.name === 'NotAllowedError'
		? wording.theDeviceDidNotGoOnIt
		: wording.theDeviceDidNotGoOn(error instanceof Error ? error.message : wording.itDoesNotSayWhy);

/** Signs in with a passkey; a sentence where it does not work, nothing where it did. */
export async function signInByPasskey(): Promise<string> {
	const asked = await call('POST /session/passkey/begun', { body: {} });
	if (isRefused(asked)) return asked.refused;
	const { startAuthentication } = await import('@simplewebauthn/browser');
	try {
		const answer = await startAuthentication({ optionsJSON: asked.options as never });
		const done = await call('POST /session/passkey', { body: { token: asked.token, answer: { ...answer } } });
		return isRefused(done) ? done.refused : '';
	} catch (error) {
		return told(error);
	}
}

/** Makes a passkey on this device; a sentence where it does not work, nothing where it did. */
export async function addPasskey(name: string): Promise<string> {
	const asked = await call('POST /me/passkeys/begun', { body: {} });
	if (isRefused(asked)) return asked.refused;
	const { startRegistration } = await import('@simplewebauthn/browser');
	try {
		const answer = await startRegistration({ optionsJSON: asked.options as never });
		const done = await call('POST /me/passkeys', { body: { token: asked.token, name, answer: { ...answer } } });
		return isRefused(done) ? done.refused : '';
	} catch (error) {
		return told(error);
	}
}
