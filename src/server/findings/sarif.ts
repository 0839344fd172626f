/** Where a finding is seen: a file or address, and its line and column from 1. */
export interface SarifPlace {
	readonly place: string;
	readonly line?: number | undefined;
	readonly column?: number | undefined;
}

/** A finding as SARIF tells it, with all places that it is seen at. */
export interface SarifFinding extends SarifPlace {
	readonly code: string;
	readonly says: string;
	readonly mend: string;
	/** From 1 to 10. */
	readonly weight: number;
	/** It is so, and not only likely. */
	readonly isSure?: boolean;
	/** The other places, each with what it says of that one. */
	readonly others?: readonly (SarifPlace & { readonly says: string })[];
}

/** Findings as a SARIF log (2.1.0, OASIS): one run, a rule for each kind. */
export function sarifOf(findings: readonly SarifFinding[], version: string) {
	const rules = [...new Map(findings.map((one) => [one.code, one])).values()];
	const indexOf = new Map(rules.map(({ code }, index) => [code, index]));
	return {
		$schema: 'https://json.schemastore.org/sarif-2.1.0.json',
		version: '2.1.0',
		runs: [
			{
				tool: {
					driver: {
						...{ name: 'kephalon', version },
						rules: rules.map(({ code, mend, weight, isSure = true }) => ({
							id: code,
							shortDescription: { text: code.replaceAll('-', ' ') },
							...(mend && { help: { text: mend } }),
							defaultConfiguration: { level: levelOf(weight) },
							properties: { precision: isSure ? 'very-high' : 'medium', weight }
						}))
					}
				},
				results: findings.map(({ code, says, mend, weight, others = [], ...place }) => ({
					...{ ruleId: code, ruleIndex: indexOf.get(code), level: levelOf(weight) },
					message: { text: mend ? `${says}. ${mend}` : says },
					locations: [{ physicalLocation: locationOf(place) }],
					...(others.length > 0 && {
						relatedLocations: others.map((other, id) => ({
							...{ id, message: { text: other.says } },
							physicalLocation: locationOf(other)
						}))
					})
				}))
			}
		]
	};
}

/** A physical location (SARIF 2.1.0, 3.29): the address is a URI reference (RFC 3986), each part of its path encoded. */
const locationOf = ({ place, line, column }: SarifPlace) => ({
	artifactLocation: { uri: /^[a-z][a-z0-9+.-]*:\/\//i.test(place) ? place : uriOf(place) },
	...(line !== undefined && { region: { startLine: line, ...(column !== undefined && { startColumn: column }) } })
});

const uriOf = (path: string) =>
	path
		.toWellFormed()
		.split('/')
		// What is encoded stays so; a colon in the first part would be taken for a scheme.
		.map((part) => encodeURIComponent(part).replace(/%25([0-9A-F]{2})/gi, '%$1'))
		.join('/');

const levelOf = (weight: number) => (weight >= 6 ? 'error' : weight >= 3 ? 'warning' : 'note');
