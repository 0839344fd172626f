import { createContext } from 'svelte';
import type { Bench } from './bench.svelte';

/** The bench that a room's parts work at: set by the room, found by whatever stands in it. */
export const [benchInView, setBench] = createContext<Bench>();
