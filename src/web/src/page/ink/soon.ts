const channel = new MessageChannel();
const waiting: (() => void)[] = [];
channel.port1.onmessage = () => waiting.shift()?.();

const sliceMilliseconds = 12;
const atATime = 40;

/** Does something with each item from one on, for a while. Returns where to go on. */
export function forAWhile<T>(items: readonly T[], from: number, each: (item: T) => void): number {
  const until = performance.now() + sliceMilliseconds;
  let next = from;
  while (next < items.length && performance.now() < until) {
    for (const stop = Math.min(next + atATime, items.length); next < stop; next++) each(items[next]!);
  }
  return next;
}

/** Does something once what was painted is on the screen. */
export function afterFrame(task: () => void): void {
  requestAnimationFrame(() => requestAnimationFrame(() => soon(task)));
}

/** Goes on after the browser had its turn, without the four milliseconds that nested timers wait. */
export function soon(task: () => void): void {
  waiting.push(task);
  channel.port2.postMessage(0);
}
