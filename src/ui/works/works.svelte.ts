import { wording } from '$ui/words/en/works';
import { counted } from '$ui/words/speaking';
/** Before so long (milliseconds) nobody can say how long a work will take. */
const TO_TELL = 2000;

/** A long work: what it is, how far, how long still, and the way to stop it. It goes on when its room is left. */
export class Work {
	/** How many of how many; 0 of 0 while that is not known. */
	done = $state(0);
	all = $state(0);
	/** What was done last, where that is told. */
	last = $state<string | undefined>();
	/** What came of it; undefined while it goes on. */
	said = $state<string | undefined>();
	isFault = $state(false);
	/** In so many places of a room it is drawn; in none, the bar draws it. */
	shown = $state(0);
	private took = $state(0);
	private readonly began = performance.now();
	private readonly stopping = new AbortController();
	readonly signal = this.stopping.signal;

	constructor(
		readonly site: string,
		/** What is done, such as “Releasing”. */
		readonly what: string
	) {}

	progress = (done: number, all: number, last?: string) => {
		this.done = done;
		if (all > 0) this.all = all;
		if (last !== undefined) this.last = last;
		this.took = performance.now() - this.began;
	};
	stop = () => this.stopping.abort();

	/** How far, in words: of what is not counted beforehand, how much is done. */
	get far(): string {
		if (this.all > 0) return wording.of(counted(this.done), counted(this.all));
		return this.done > 0 ? counted(this.done) : '';
	}
	/** How long still, as things go; '' where nobody can say. */
	get left(): string {
		if (this.took < TO_TELL || this.done === 0 || this.all <= this.done) return '';
		return lastsInWords(((this.all - this.done) * this.took) / this.done);
	}
}

/** A time (milliseconds) as somebody who waits wants to know it. */
export function lastsInWords(time: number): string {
	const seconds = Math.round(time / 1000);
	if (seconds < 5) return wording.aFewSecondsStill;
	if (seconds < 55) return wording.aboutSecondsStill(Math.round(seconds / 5) * 5);
	const minutes = Math.round(seconds / 60);
	if (minutes < 60) return minutes <= 1 ? wording.aboutAMinuteStill : wording.aboutMinutesStill(minutes);
	const hours = Math.round(minutes / 60);
	return hours === 1 ? wording.aboutAnHourStill : wording.aboutHoursStill(hours);
}

/** All that go on in this window, and those that ended while nobody looked. */
class Works {
	all = $state.raw<readonly Work[]>([]);

	/** Begins one: what it hands on hears how far it is, and stops it. */
	begin(site: string, what: string): Work {
		const work = new Work(site, what);
		this.all = [...this.all, work];
		return work;
	}
	/** Ends one. What came of it stands in the bar, where its room is not there to say it. */
	end(work: Work, said: string, isFault = false) {
		if (work.shown > 0) return this.drop(work);
		// That somebody stopped it is no fault.
		[work.said, work.isFault] = [said || wording.stopped, isFault && !work.signal.aborted];
	}
	drop(work: Work) {
		this.all = this.all.filter((one) => one !== work);
	}
}
export const works = new Works();
