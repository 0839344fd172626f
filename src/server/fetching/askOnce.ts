/**
 * Asks over a connection of its own. A thread that rests between its jobs does not see that a kept one was closed meanwhile, and
 * what it then sends into it is lost.
 */
export function askOnce(address: string, asked: RequestInit): Promise<Response> {
	const headers = new Headers(asked.headers);
	headers.set('connection', 'close');
	return fetch(address, { ...asked, headers });
}
