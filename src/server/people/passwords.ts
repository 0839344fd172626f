import { hash, verify } from '@node-rs/argon2';
import { dictionary } from '@zxcvbn-ts/language-common';
import { refuse } from '../errors';

/** Argon2id (what the library takes where nothing is said) with the least that OWASP names: 19 MiB, two passes, one lane. It runs off the thread that answers. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };
const LEAST = 12;
const MOST = 200;
/** Passwords that many have, the commonest ten thousand among them. */
const COMMON: ReadonlySet<string> = new Set(dictionary['passwords-common'] as readonly string[]);

const plain = (text: string) => text.normalize('NFKC').toLowerCase();

/** Refuses a password that is too short, that many have, or that is like the name. */
export function refuseWeak(password: string, name: string) {
	const length = [...password].length;
	if (length < LEAST || length > MOST) throw refuse('password-length', { least: LEAST, most: MOST });
	const said = plain(password);
	const [own, letters] = [plain(name), said.replace(/[^\p{L}]/gu, '')];
	const isName = own.length >= 3 && (said.includes(own) || (letters.length >= 3 && own.includes(letters)));
	if (COMMON.has(said) || isRepeated(said)) throw refuse('password-common');
	if (isName) throw refuse('password-name');
}

/** The same few signs again and again: a common password that was made longer. */
function isRepeated(text: string): boolean {
	for (let length = 1; length <= text.length / 2; length++) {
		const part = text.slice(0, length);
		if ((length <= 4 || COMMON.has(part)) && part.repeat(Math.ceil(text.length / length)).startsWith(text)) return true;
	}
	return false;
}

export const hashPassword = (password: string): Promise<string> => hash(password.normalize('NFKC'), COST);

/** Of a password that nobody has: for accounts that are not there it takes as long to say no. */
let nobodys: Promise<string> | undefined;

/** Whether a password is the one of a hash; without a hash it is not, and takes as long. */
export async function isPassword(password: string, hashed: string | undefined): Promise<boolean> {
	const against = hashed ?? (await (nobodys ??= hashPassword(crypto.randomUUID())));
	const is = await verify(against, password.normalize('NFKC'));
	return is && hashed !== undefined;
}
