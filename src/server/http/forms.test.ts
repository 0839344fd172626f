import { readFileSync, writeFileSync } from 'node:fs';
import { createGenerator } from 'ts-json-schema-generator';
import { expect, test } from 'vitest';

/** The forms that requests and answers are held to, and the contract that they are made from. */

const FILE = 'src/server/http/forms.json';

test('the forms are those of the contract', { timeout: 120_000 }, () => {
	const path = 'src/server/http/contract.ts';
	const generator = createGenerator({
		...{ path, tsconfig: 'tsconfig.json', skipTypeCheck: true, jsDoc: 'extended', expose: 'export' },
		...{ type: 'Contract', topRef: true, additionalProperties: false, functions: 'hide' }
	});
	const written = `${JSON.stringify(generator.createSchema('Contract'))}\n`;
	if (process.env.KEPHALON_WRITE) writeFileSync(FILE, written);
	// `npm run forms` writes them anew.
	expect(readFileSync(FILE, 'utf8') === written).toBe(true);
});
