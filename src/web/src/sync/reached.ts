/** A run of numbers, both ends included. */
export type Run = readonly [first: number, last: number];

/** Which of the server's operations are here, by their numbers: all up to one, and runs beyond it that came early. */
export class Reached {
  private runs: Run[] = [];
  private upTo = 0;

  constructor(complete = 0, runs: readonly Run[] = []) {
    this.upTo = complete;
    for (const [first, last] of runs) this.add(first, last);
  }

  /** All up to this number are here. */
  get complete(): number {
    return this.upTo;
  }

  /** The last number that is here, with or without those before it. */
  get furthest(): number {
    return Math.max(this.upTo, ...this.runs.map(([, last]) => last));
  }

  has(first: number, last: number): boolean {
    return last <= this.upTo || this.runs.some((run) => run[0] <= first && run[1] >= last);
  }

  /** Notes that these came; false when all of them had come before. */
  add(first: number, last: number): boolean {
    if (this.has(first, last)) return false;
    this.runs.push([first, last]);
    this.runs.sort((a, b) => a[0] - b[0]);
    while (this.runs.length > 0 && this.runs[0]![0] <= this.upTo + 1)
      this.upTo = Math.max(this.upTo, this.runs.shift()![1]);
    return true;
  }
}
