/**
 * One stop of the Tab key for a group: the arrows go on within it. The stop is the pressed or current one of the group,
 * or the one that had the focus last.
 */
export function roving(selector: string) {
	return (group: HTMLElement) => {
		const all = () => [...group.querySelectorAll<HTMLElement>(selector)].filter((one) => !one.matches(':disabled'));
		let last: HTMLElement | undefined;
		const isMarked = (one: HTMLElement) =>
			one.matches('[aria-pressed="true"], [aria-current]:not([aria-current="false"])');
		function settle() {
			const items = all();
			const stop = items.find(isMarked) ?? (last && items.includes(last) ? last : items[0]);
			for (const one of items) {
				const index = one === stop ? 0 : -1;
				if (one.tabIndex !== index) one.tabIndex = index;
			}
		}
		function onkeydown(event: KeyboardEvent) {
			if (event.altKey || event.ctrlKey || event.metaKey) return;
			const items = all();
			const at = items.indexOf(event.target as HTMLElement);
			const next = at < 0 ? undefined : items[STEPS[event.key]?.(at, items.length) ?? -1];
			if (!next) return;
			event.preventDefault();
			last = next;
			next.focus();
			settle();
		}
		const watch = new MutationObserver(settle);
		watch.observe(group, {
			subtree: true,
			childList: true,
			attributeFilter: ['aria-pressed', 'aria-current', 'disabled']
		});
		group.addEventListener('keydown', onkeydown);
		settle();
		return () => {
			watch.disconnect();
			group.removeEventListener('keydown', onkeydown);
		};
	};
}

const on = (at: number, count: number) => (at + 1) % count;
const back = (at: number, count: number) => (at - 1 + count) % count;
const STEPS: Readonly<Record<string, (at: number, count: number) => number>> = {
	ArrowDown: on,
	ArrowRight: on,
	ArrowUp: back,
	ArrowLeft: back,
	Home: () => 0,
	End: (_at, count) => count - 1
};
