import { RateLimiterSQLite } from 'rate-limiter-flexible';
import { refuse } from '../errors';
import type { Store } from '../store/store';
import { hashed } from './who';

/** So many failures in a day cost nothing, of one account from one address, and of one address. */
const FREE = { account: 5, address: 20 };
const DAY = 86_400;
/** From then on one waits longer with each, up to so many seconds. */
const LONGEST = 3600;

/**
 * Failed tries to sign in, counted by account and by address, kept over restarts: who fails waits longer each time. Nobody can
 * keep somebody else out: an account is counted for each address by itself.
 */
export class Tries {
	private readonly failures: RateLimiterSQLite;
	private readonly waits: RateLimiterSQLite;

	constructor(store: Store) {
		const shared = { storeClient: store.db, storeType: 'better-sqlite3', tableName: 'sign_in_try', tableCreated: true };
		this.failures = new RateLimiterSQLite({
			...shared,
			keyPrefix: 'failed',
			points: Number.MAX_SAFE_INTEGER,
			duration: DAY
		});
		this.waits = new RateLimiterSQLite({ ...shared, keyPrefix: 'waits', points: 1, duration: 1 });
	}

	private keys(name: string, address: string) {
		return [
			// A name that is not there may be a password, typed into the wrong field.
			{ key: `account ${hashed(name.toLowerCase()).toString('base64url')} ${address}`, free: FREE.account },
			{ key: `address ${address}`, free: FREE.address }
		];
	}

	/** Refuses one who has to wait, with how long. */
	async refuseEarly(name: string, address: string) {
		for (const { key } of this.keys(name, address)) {
			const wait = await this.waits.get(key);
			if (wait && wait.consumedPoints > 1 && wait.msBeforeNext > 0)
				throw refuse('sign-in-wait', { seconds: Math.ceil(wait.msBeforeNext / 1000) });
		}
	}

	async failed(name: string, address: string) {
		for (const { key, free } of this.keys(name, address)) {
			const { consumedPoints } = await this.failures.penalty(key, 1);
			if (consumedPoints >= free) await this.waits.block(key, Math.min(LONGEST, 2 ** (consumedPoints - free)));
		}
	}

	/** What failed of the account from there is forgotten; of the address it is not. */
	async succeeded(name: string, address: string) {
		const [account] = this.keys(name, address);
		await this.failures.delete(account!.key);
	}
}
