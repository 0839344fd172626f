import { createTransport } from 'nodemailer';
import { refuse } from '../errors';

/** A mail server is given so long (milliseconds) for each of its answers. */
const PATIENCE = 10_000;

/** An invitation on its way by mail. */
export interface MailTask {
	/** The mail server: smtp:// or smtps://, with its name and password where it asks for them. */
	readonly server: string;
	readonly from: string;
	readonly to: string;
	readonly name: string;
	readonly link: string;
}

/** Sends one mail. Throws a `UserError`. */
export async function mail({ server, from, to, name, link }: MailTask) {
	const transport = createTransport({
		url: server,
		connectionTimeout: PATIENCE,
		greetingTimeout: PATIENCE,
		socketTimeout: PATIENCE
	});
	try {
		await transport.sendMail({
			...{ from, to, subject: 'Your invitation to Kephalon' },
			text: `${name},\n\nthis link lets you in to Kephalon. It works once, within a week:\n\n${link}\n\nIf you expected nothing of the kind, leave it alone.\n`
		});
	} catch (error) {
		// What a server says may hold what it was sent.
		const why = (error as Error).message.slice(0, 200).replaceAll(link, '…');
		throw refuse('mail-failed', { to, why });
	} finally {
		transport.close();
	}
}
