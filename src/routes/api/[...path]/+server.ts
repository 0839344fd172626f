import { answer } from '$server/http/answer';
import type { RequestHandler } from './$types';

/** Every route is a row of the contract. */
export const fallback: RequestHandler = answer;
