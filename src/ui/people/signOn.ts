import { call, isRefused } from '$ui/client';

/** Leads the browser to the issuer of single sign-on; `to` is where one wants to go after. Gives what was refused, or ''. */
export async function beginSignOn(to: string): Promise<string> {
	const begun = await call('POST /session/sign-on', { body: { to } });
	if (isRefused(begun)) return begun.refused;
	location.assign(begun.address);
	return '';
}
