import { lookup as resolveName } from 'node:dns';
import { isIP, type LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';
import { parseUrl } from '$core';

/**
 * Why an address must not be fetched by the server, in words that finish "… is not fetched: it …"; undefined when it
 * may be. Only the public internet is fetched: an address given by anyone must not reach this machine or its network.
 */
export function refuseAddress(address: string, allowed: ReadonlySet<string> = new Set()): string | undefined {
	const url = parseUrl(address);
	if (!url) return 'is no absolute address';
	const { protocol, username, password, hostname, host } = url;
	if (protocol !== 'http:' && protocol !== 'https:') return `begins with ${protocol} rather than http: or https:`;
	if (username || password) return 'carries a user name or password';
	if (allowed.has(host)) return undefined;
	const bare = hostname.replace(/^\[|\]$/g, '');
	return isIP(bare) ? refuseIp(bare) : undefined;
}

/** What each range that is not public is called. */
const RANGES: Readonly<Record<string, string>> = {
	loopback: 'leads to this machine',
	private: 'leads to a private network',
	uniqueLocal: 'leads to a private network',
	carrierGradeNat: 'leads to a provider’s inner network',
	linkLocal: 'leads to the local link',
	unspecified: 'leads to this machine',
	broadcast: 'leads to a whole network',
	multicast: 'leads to many machines'
};

/**
 * The same for an IP address, in any of its forms. An IPv6 address that wraps an IPv4 one is as good as that one; all
 * but plain unicast addresses are refused, among them those of translators, which could wrap a private one.
 */
export function refuseIp(ip: string): string | undefined {
	if (!ipaddr.isValid(ip)) return 'is no IP address';
	const address = ipaddr.process(ip);
	const range = address.range();
	if (range !== 'unicast') return RANGES[range] ?? 'leads to a reserved network';
	const isPublic =
		address.kind() === 'ipv4' ||
		((address as ipaddr.IPv6).match(GLOBAL) && !RESERVED.some((one) => (address as ipaddr.IPv6).match(one)));
	return isPublic ? undefined : 'leads to a reserved network';
}

/** What is assigned for the public internet (IANA, IPv6 Global Unicast), but for what is set apart in it. */
const GLOBAL = ipaddr.IPv6.parseCIDR('2000::/3');
const RESERVED = ['2001::/23', '2001:db8::/32', '2002::/16', '3fff::/20'].map((range) => ipaddr.IPv6.parseCIDR(range));

/** The refusal of a name by the addresses it resolves to. */
export class RefusedName extends Error {}

/**
 * A look-up of names that gives only public addresses. It runs when the connection is made, so that a name cannot
 * resolve to one address when it is checked and to another when it is used; one refused address refuses the name.
 */
export function guardedLookup(resolve: typeof resolveName = resolveName): LookupFunction {
	return (hostname, options, done) => {
		resolve(hostname, { ...options, all: true }, (error, found) => {
			const addresses = found;
			if (error) return done(error, '');
			const why = addresses.map(({ address }) => refuseIp(address)).find(Boolean);
			if (why) return done(new RefusedName(why), '');
			const [first] = addresses;
			if (!first)
				return done(Object.assign(new Error(`The name ${hostname} has no address.`), { code: 'ENODATA' }), '');
			if (options.all) return done(null, addresses);
			done(null, first.address, first.family);
		});
	};
}
