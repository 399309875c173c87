/** A slice while the hand is at it, and one that somebody waits for, milliseconds. */
const [shortSlice, longSlice] = [14, 36];
/** What is put on the canvas at once in either is to take so long, milliseconds. */
const [shortChunk, longChunk] = [8, 16];
/** What is painted at once, in the middle of something else, may take so long. */
const mostAtOnce = 14;
/** So few are painted at once, so many at first, and so many at most. */
const [fewest, firstFew, most] = [8, 100, 4_000];
/** From one time to the next it is never many more, and may be far fewer. */
const [mostLess, mostMore] = [0.25, 1.5];

/**
 * Paints many things in short slices. A browser only notes down what is painted and puts it on the canvas when the frame ends, all of it at
 * once; so that a slice is as short as it seems, each few things are put there before the next are noted down. How many those are follows what
 * the last ones took.
 */
export class Pace {
  private readonly probe = new OffscreenCanvas(1, 1).getContext('2d')!;
  private few = firstFew;
  /** What one thing took of late, and what putting anything on the canvas takes by itself, milliseconds. */
  private each = 0.02;
  private least = shortChunk / 2;

  /** Paints items from one on, for a while; `paint` says whether it had anything to paint. Returns where to go on. */
  run<T>(
    canvas: HTMLCanvasElement | OffscreenCanvas,
    items: readonly T[],
    from: number,
    paint: (item: T) => boolean,
    waited = false,
  ): number {
    const chunk = waited ? longChunk : shortChunk;
    // The last few are begun while there is time for half of them.
    const until = performance.now() + (waited ? longSlice : shortSlice) - chunk / 2;
    let next = from;
    for (let now = performance.now(); next < items.length && now < until;) {
      const few = next === 0 ? Math.min(this.few, firstFew) : this.few;
      let painted = 0;
      while (next < items.length && painted < few) if (paint(items[next++]!)) painted++;
      if (painted === 0) break;
      this.probe.drawImage(canvas, 0, 0, 1, 1, 0, 0, 1, 1);
      const took = performance.now() - now;
      now += took;
      if (painted === few) this.learn(painted, took, chunk);
    }
    return next;
  }

  private learn(painted: number, took: number, chunk: number): void {
    this.least = Math.min(this.least * 1.02, took);
    this.each = this.each * 0.6 + Math.max((took - Math.min(this.least, chunk * 0.4)) / painted, 0.002) * 0.4;
    // Where a canvas alone takes most of the time, smaller parts would only make it longer.
    const aim = Math.max(chunk, this.least * 1.6);
    const times = Math.min(Math.max(aim / took, mostLess), mostMore);
    this.few = Math.min(Math.max(Math.round(painted * times), fewest), most);
  }

  /** All is seen so many times as large from here on: what is broad may take as many times its area, until it is known what it does take. */
  enlarge(times: number): void {
    if (times <= 1) return;
    this.each *= times * times;
    this.few = Math.max(Math.round(this.few / (times * times)), fewest);
  }

  /** Whether so many things can be painted at once without anybody having to wait. */
  affords(count: number): boolean {
    return count * this.each <= mostAtOnce;
  }
}
