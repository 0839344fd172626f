/** Something that can be gone to or done by its name. */
export interface Command {
	readonly group: 'Do' | 'Rooms' | 'Tags' | 'Pages';
	readonly name: string;
	readonly more?: string;
	readonly keys?: string;
	/** The name is a tag or a path. */
	readonly isCode?: boolean;
	/** It brings the focus somewhere; without it, that goes back to where it was. */
	readonly leads?: true;
	readonly run: () => void;
}
