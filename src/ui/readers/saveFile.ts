/** Gives a page of HTML to whoever sits here, as a file of that name. */
export function saveFile(html: string, name: string) {
	const address = URL.createObjectURL(new Blob([html], { type: 'text/html' }));
	const link = document.createElement('a');
	[link.href, link.download] = [address, name];
	link.click();
	// The browser has begun to read it by then.
	setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
