import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import openapiTS, { astToString } from 'openapi-typescript';
import { expect, test } from 'vitest';
import { openApi } from './openApi';

/** The types of the client are those of the description, which is made from the forms that requests are held to. */
test('bin/api.d.ts is what the description says', async () => {
	const file = fileURLToPath(new URL('../../../bin/api.d.ts', import.meta.url));
	// What stands within a route or a schema, in one line: it is read by programs.
	const written = astToString(await openapiTS(openApi() as never)).replace(/\n {8,}/g, ' ');
	const types = `// Made by npm run forms; not written by hand.\n${written}`;
	if (process.env.KEPHALON_WRITE) writeFileSync(file, types);
	expect(readFileSync(file, 'utf8')).toBe(types);
}, 120_000);
