/** A slice while the hand is at it, and one that somebody waits for. */
const [shortSlice, longSlice] = [12, 40];
const [shortChunk, longChunk] = [8, 26];
/** What is painted at once, in the middle of something else, may take so long. */
const mostAtOnce = 14;
/** So few are painted at once, so many at first, and so many at most. */
const [fewest, firstFew, most] = [8, 100, 4_000];

/**
 * Paints many things in short slices. A browser only notes down what is painted and puts it on the canvas when the frame ends, all of it at
 * once; so that a slice is as short as it seems, each few things are put there before the next are noted down.
 */
export class Pace {
  private readonly probe = new OffscreenCanvas(1, 1).getContext('2d')!;
  /** What one thing took of late, and what putting anything on the canvas takes by itself, milliseconds. */
  private each = 0.02;
  private least = shortChunk;

  /** Paints items from one on, for a while; `paint` says whether it had anything to paint. Returns where to go on. */
  run<T>(
    canvas: HTMLCanvasElement | OffscreenCanvas,
    items: readonly T[],
    from: number,
    paint: (item: T) => boolean,
    waited = false,
  ): number {
    const until = performance.now() + (waited ? longSlice : shortSlice);
    let next = from;
    for (let now = performance.now(); next < items.length && now < until;) {
      const chunk = waited ? longChunk : shortChunk;
      const few = Math.min(Math.max(Math.round(chunk / this.each), fewest), next === 0 ? firstFew : most);
      let painted = 0;
      while (next < items.length && painted < few) if (paint(items[next++]!)) painted++;
      if (painted === 0) break;
      this.probe.drawImage(canvas, 0, 0, 1, 1, 0, 0, 1, 1);
      const took = performance.now() - now;
      now += took;
      if (painted < few) continue;
      this.least = Math.min(this.least * 1.05, took);
      const each = (took - this.least * 0.8) / painted;
      // What took far too long is not tried again; what was quick, by and by.
      this.each = Math.max(took > chunk * 1.5 ? each : this.each * 0.6 + each * 0.4, 0.002);
    }
    return next;
  }

  /** Whether so many things can be painted at once without anybody having to wait. */
  affords(count: number): boolean {
    return count * this.each <= mostAtOnce;
  }
}
