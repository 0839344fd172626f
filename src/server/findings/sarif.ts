/** A finding as SARIF tells it. */
export interface SarifFinding {
	readonly code: string;
	readonly says: string;
	readonly mend: string;
	/** From 1 to 10. */
	readonly weight: number;
	/** The file or address that it is about, and its line from 1. */
	readonly place: string;
	readonly line?: number;
}

/** Findings as a SARIF log (2.1.0, OASIS): one run, a rule for each kind. */
export function sarifOf(findings: readonly SarifFinding[], version: string) {
	const rules = [...new Map(findings.map((one) => [one.code, one])).values()];
	return {
		$schema: 'https://json.schemastore.org/sarif-2.1.0.json',
		version: '2.1.0',
		runs: [
			{
				tool: {
					driver: {
						...{ name: 'kephalon', version },
						rules: rules.map(({ code, mend, weight }) => ({
							id: code,
							shortDescription: { text: code.replaceAll('-', ' ') },
							...(mend && { help: { text: mend } }),
							defaultConfiguration: { level: levelOf(weight) }
						}))
					}
				},
				results: findings.map(({ code, says, mend, weight, place, line }) => ({
					ruleId: code,
					ruleIndex: rules.findIndex((rule) => rule.code === code),
					level: levelOf(weight),
					message: { text: mend ? `${says}. ${mend}` : says },
					locations: [
						{
							physicalLocation: {
								artifactLocation: { uri: encodeURI(place) },
								...(line !== undefined && { region: { startLine: line } })
							}
						}
					]
				}))
			}
		]
	};
}

const levelOf = (weight: number) => (weight >= 6 ? 'error' : weight >= 3 ? 'warning' : 'note');
