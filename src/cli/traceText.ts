import {
	describeOutcome,
	describePassedOver,
	describeRule,
	describeWithheld,
	nameOfLayer,
	valueAsText,
	type Trace
} from '$core';

/** Traces for a terminal: a block for each tag, a line for each candidate. */
export function traceAsText(traces: readonly Trace[]): string {
	return traces.map(blockFor).join('\n');
}

function blockFor(trace: Trace): string {
	const lines = trace.steps.map((step) => {
		const language = step.language ? ` (${step.language})` : '';
		return `  ${step.outcome.kind === 'won' ? '>' : ' '} ${nameOfLayer(step.layer)}${language}: ${describeRule(step)}: ${describeOutcome(step.outcome)}`;
	});
	const notes = [describePassedOver(trace), trace.withheld && describeWithheld(trace.withheld)]
		.filter(Boolean)
		.map((note) => `    ${note}`);
	return `${trace.tag} = ${trace.value === undefined ? 'nothing' : valueAsText(trace.value)}\n${[...lines, ...notes].join('\n')}\n`;
}
