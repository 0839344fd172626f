/** Calls again whenever what it reads has changed, until it is stopped. For tests. */
export const watch = (look: () => unknown) =>
	$effect.root(() => {
		$effect(() => void look());
	});
