/** Some of what can be done, under one heading. */
export interface MenuGroup {
	readonly name: string;
	readonly items: readonly { readonly says: string; readonly keys?: string; readonly run: () => void }[];
}
