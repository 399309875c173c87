const channel = new MessageChannel();
const waiting: (() => void)[] = [];
channel.port1.onmessage = () => waiting.shift()?.();

/** Does something once what was painted is on the screen. */
export function afterFrame(task: () => void): void {
  requestAnimationFrame(() => requestAnimationFrame(() => soon(task)));
}

/** Goes on after the browser had its turn, without the four milliseconds that nested timers wait. */
export function soon(task: () => void): void {
  waiting.push(task);
  channel.port2.postMessage(0);
}

/** Resolves once the browser had its turn. */
export const nextTurn = (): Promise<void> => new Promise(soon);
