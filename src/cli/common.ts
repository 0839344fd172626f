import { describeFinding, isError, parseUrl, type Finding } from '$core';
import { createWriteStream } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setFlagsFromString } from 'node:v8';
import { InvalidArgumentError, Option, type Command } from 'commander';
import { SingleBar } from 'cli-progress';
import { log, LOG_LEVELS } from '$server/log';
import type { OpenOptions } from '$server/store/opening/database';
import { Store } from '$server/store/store';

/** The database a verb works on, by the order that the help tells. */
export function databaseOf({ db }: { db?: string }): string {
	return db ?? process.env.KEPHALON_DB ?? './data/kephalon.db';
}

export const dbOption = () => new Option('--db <file>', 'the database');

/** Where sources of live data may lie that are not on the public internet. */
export const sourceOption = () =>
	new Option(
		'--source <origin>',
		'the origin of a source of live data inside a network, such as http://10.0.0.7:9000; may be repeated'
	)
		.default([])
		.argParser((text: string, before: readonly string[]) => {
			const url = parseUrl(text);
			if (!url || !/^https?:$/.test(url.protocol) || url.origin !== text.replace(/\/$/, ''))
				throw new InvalidArgumentError('A source is named by its origin, such as http://10.0.0.7:9000.');
			return [...before, url.origin];
		});
/** Says so to whatever asks sources: also in threads. */
export const allowSources = (origins: readonly string[]) =>
	void (process.env.KEPHALON_SOURCES = JSON.stringify(origins));

export const logOption = () =>
	new Option('--log-level <level>', 'what is logged on stderr, a line of JSON each; debug logs every request')
		.default('warn')
		.argParser((level: string) => {
			if (!LOG_LEVELS.some((known) => known === level))
				throw new InvalidArgumentError(`A level is one of ${LOG_LEVELS.join(', ')}.`);
			process.env.KEPHALON_LOG_LEVEL = level;
			log.level = level;
			return level;
		});

/** Opens the database for as long as the work takes. It must be there, unless the options say that it is to be made. */
export async function withStore<T>(
	options: { db?: string } & Pick<OpenOptions, 'create' | 'readonly'>,
	work: (store: Store) => T | Promise<T>
): Promise<T> {
	const { create = false, readonly = false } = options;
	const store = new Store(databaseOf(options), { create, readonly });
	try {
		return await work(store);
	} finally {
		store.close();
	}
}

/** The same for work that only reads: nothing is made or written, also where nothing may be. */
export const withReader = <T>(options: { db?: string }, work: (store: Store) => T | Promise<T>): Promise<T> =>
	withStore({ ...options, readonly: true }, work);

/**
 * For work on any number of files. Left to itself, the engine lets garbage grow to four times what is in use before it
 * looks: of a large folder, that is most of the memory.
 */
export const keepHeapSmall = () => setFlagsFromString('--heap-growing-percent=20');

/** Work that takes longer than this (milliseconds) shows how far it is. */
const SHOW_AFTER = 500;

/** A progress bar on stderr for long work; nothing where no one watches. */
export function progressBar(what: string): { update: (done: number, all: number) => void; stop: () => void } {
	const began = Date.now();
	let bar: SingleBar | undefined;
	return {
		update(done, all) {
			if (!process.stderr.isTTY || Date.now() - began < SHOW_AFTER) return;
			if (!bar) {
				bar = new SingleBar({
					format: `${what} {bar} {value} of {total}`,
					stream: process.stderr,
					hideCursor: true,
					clearOnComplete: true
				});
				bar.start(all, done);
			}
			bar.update(done);
		},
		stop: () => bar?.stop()
	};
}

/** Says that it is meant that much goes. */
export const removesOption = () =>
	new Option('--removes <pages>', 'how many pages leave by it: asked for where they are more than a fifth').argParser(
		(text: string) => {
			if (!/^\d{1,9}$/.test(text)) throw new InvalidArgumentError('It is a whole number of pages.');
			return Number(text);
		}
	);

/** A message for people, on stderr. */
export const say = (text: string) => void process.stderr.write(`${text}\n`);

/** Writes a text, piece by piece, to a file and says so; without one, to stdout. */
export async function writeOut(pieces: Iterable<string | Uint8Array>, file: string | undefined) {
	const text = Readable.from(pieces);
	if (file === undefined) return pipeline(text, process.stdout, { end: false });
	// Written beside and renamed: one that is interrupted leaves the old file.
	const beside = `${file}.kephalon-new`;
	await pipeline(text, createWriteStream(beside)).catch(async (error: unknown) => {
		await rm(beside, { force: true });
		throw error;
	});
	await rename(beside, file);
	say(`Wrote ${file}.`);
}

/** A result, on stdout. */
export const print = (text: string) => void process.stdout.write(text);

export const printJson = (value: unknown) => print(`${JSON.stringify(value, null, 2)}\n`);

/** "1 page", "3 pages". */
export const count = (number: number, one: string, many = `${one}s`) =>
	`${number.toLocaleString('en')} ${number === 1 ? one : many}`;

/** A list cut after so many lines, with a word on what was left out; `all` where the lines are the first of more. */
export function listed(lines: readonly string[], most = 12, all = lines.length): string {
	const shown = lines.slice(0, most).map((line) => `  ${line}`);
	const more = (all - shown.length).toLocaleString('en');
	return [...shown, ...(all > shown.length ? [`  … and ${more} more`] : [])].join('\n');
}

export type Verb = (program: Command) => void;

/** Says which rules do not work, where any do not: what they were written for is missing, all else is there. */
export function sayFaulty(faulty: readonly Finding[]) {
	if (faulty.length === 0) return;
	const rules = new Set(faulty.map(({ target, tag }) => JSON.stringify([target, tag]))).size;
	const what = rules === 1 ? 'One rule does not work' : `${rules} rules do not work`;
	say(`${what}:\n${listed(faulty.map(findingAsText))}`);
}

/** A finding on one line: how grave it is, where it stands, and what it says. */
export function findingAsText(found: Finding): string {
	const { target, tag, data } = found;
	const owner = target.of === 'type' ? target.name : target.of === 'page' ? target.path : '';
	const language = 'language' in data ? ` (${data.language})` : '';
	const where = 'part' in data ? data.part : tag === undefined ? found.code : `${tag}${language}`;
	return `${isError(found) ? 'error' : 'warning'}: ${target.of}${owner && ` ${owner}`}, ${where}: ${describeFinding(found)}`;
}

/** Gathers what an option that may be repeated was given. */
export const collect = (value: string, before: string[]): string[] => [...before, value];

/** The number of a release, as an argument. */
export function releaseNumber(text: string): number {
	const number = Number(text);
	if (!Number.isInteger(number) || number < 1) throw new InvalidArgumentError('A release is a number from 1 on.');
	return number;
}

/** Which release heads are taken from. */
export const releaseOption = () =>
	new Option('--release <number>', 'the heads of a release: its number, or "latest"').argParser((text) =>
		text === 'latest' ? text : releaseNumber(text)
	);

/** That heads are not taken from a release. */
export const workingOption = () =>
	new Option('--working', 'the heads as the working copy says them now; so it is when neither is named');
