import { refuse, UserError } from '../errors';
import { runJob } from '../jobs/run';
import type { MailTask } from '../people/mailer';
import { saidOf } from '../speaking';

/** The mail server that this process was told of, and who writes; undefined without one. */
function mailing(): Pick<MailTask, 'server' | 'from'> | undefined {
	const { KEPHALON_SMTP: server, KEPHALON_MAIL_FROM: from } = process.env;
	return server && from ? { server, from } : undefined;
}
export const canMail = () => mailing() !== undefined;

/** An address that mail can go to; what breaks lines or names several is none. */
function refuseOther(address: string) {
	if (!/^[^\s@<>",;:]{1,64}@[^\s@<>",;:]{1,200}$/u.test(address)) throw refuse('mail-address-broken', { address });
}

/** Refuses what cannot be sent, before anybody is invited. */
export function refuseUnsendable(to: string | undefined) {
	if (to === undefined) return;
	if (!canMail()) throw refuse('mail-none');
	refuseOther(to);
}

/** What became of an invitation that was to go by mail. */
export interface Sent {
	readonly sent?: string;
	/** Why it was not sent: then it is handed over. */
	readonly unsent?: string;
}

/** Sends an invitation, in a thread: a server elsewhere answers. Where that fails, it says why. */
export async function sendInvitation(to: string | undefined, name: string, link: string): Promise<Sent> {
	const by = mailing();
	if (to === undefined || !by) return {};
	try {
		await runJob('mail', { ...by, to, name, link });
		return { sent: to };
	} catch (error) {
		if (error instanceof UserError) return { unsent: saidOf(error) };
		throw error;
	}
}
