import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { refuse } from '../errors';

/** A vector picture is drawn within these: a few lines of one can ask for hours and all memory. */
const MOST_TIME = 10_000;
const MOST_MEMORY_MB = 700;
const MOST_DRAWN = 2;
/** How often (milliseconds) the drawing process is looked at. */
const WATCH_EVERY = 50;

/** The program of the process that draws; it reads the file on its standard input and writes a PNG. */
const PROGRAM = `
const sharp = require(process.argv[1]);
sharp.concurrency(1);
const parts = [];
process.stdin.on('data', (part) => parts.push(part)).on('end', async () => {
	try {
		const [pixels, side] = process.argv.slice(2).map(Number);
		const drawn = await sharp(Buffer.concat(parts), { limitInputPixels: pixels })
			.resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true }).png().toBuffer();
		process.stdout.write(drawn);
	} catch (error) {
		process.stderr.write(String(error.message));
		process.exitCode = 1;
	}
});`;

let drawing = 0;
const waiting: (() => void)[] = [];

/**
 * Draws a vector picture as PNG in a process of its own, which is ended when it takes too long or too much memory. Throws
 * a `UserError` then, and an `Error` with the decoder's words when it cannot be read.
 */
export async function drawVector(bytes: Buffer, limits: { pixels: number; side: number }): Promise<Buffer> {
	if (drawing >= MOST_DRAWN) await new Promise<void>((resolve) => waiting.push(resolve));
	drawing++;
	try {
		return await drawInProcess(bytes, limits);
	} finally {
		drawing--;
		waiting.shift()?.();
	}
}

function drawInProcess(bytes: Buffer, { pixels, side }: { pixels: number; side: number }): Promise<Buffer> {
	return new Promise((resolve, reject) => {
		const sharp = createRequire(import.meta.url).resolve('sharp');
		const child = spawn(process.execPath, ['-e', PROGRAM, sharp, String(pixels), String(side)], {
			stdio: ['pipe', 'pipe', 'pipe']
		});
		const [out, said]: [Buffer[], Buffer[]] = [[], []];
		let tooMuch = '';
		const stop = (why: string) => {
			tooMuch = why;
			child.kill('SIGKILL');
		};
		const timer = setTimeout(() => stop(`takes longer than ${MOST_TIME / 1000} seconds`), MOST_TIME);
		const watch = setInterval(() => {
			if (megabytesOf(child.pid) > MOST_MEMORY_MB) stop(`needs more than ${MOST_MEMORY_MB} MB`);
		}, WATCH_EVERY);
		child.stdout.on('data', (part: Buffer) => out.push(part));
		child.stderr.on('data', (part: Buffer) => said.push(part));
		child.stdin.on('error', () => undefined);
		child.on('error', reject);
		child.on('close', (code) => {
			clearTimeout(timer);
			clearInterval(watch);
			if (tooMuch) reject(refuse('vector-too-much', { why: tooMuch }));
			else if (code === 0) resolve(Buffer.concat(out));
			else reject(new Error(Buffer.concat(said).toString() || 'the drawing ended'));
		});
		child.stdin.end(bytes);
	});
}

/** The memory of a process; 0 where the system does not tell. */
function megabytesOf(pid: number | undefined): number {
	try {
		return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1000;
	} catch {
		return 0;
	}
}
