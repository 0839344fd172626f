/** What it means that a work over many pages was stopped, or that its answer broke off. */
export const ENDINGS = {
	stopped: 'Stopped: nothing was changed.',
	broken: 'The work ended before its time. Look at the record, and try again.'
};
