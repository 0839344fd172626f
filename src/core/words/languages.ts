/** The languages that the interface speaks, each by its own name; the first is spoken where none of them is asked for. */
export const LANGUAGES = { 'en-GB': 'English', fr: 'Français' } as const;
export type Spoken = keyof typeof LANGUAGES;
export const ALL_SPOKEN = Object.keys(LANGUAGES) as Spoken[];
