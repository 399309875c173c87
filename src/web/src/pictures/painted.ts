import type { Painted, Wish } from './pictureWorker';

/** So many painted pictures stay in memory, a few kilobytes each. */
const mostKept = 600;

const kept = new Map<string, Promise<string | undefined>>();
const waiting = new Map<string, (painted: Painted) => void>();
let worker: Worker | undefined;

/**
 * The address of a page's picture, painted by a worker in just as many pixels as it is shown in; undefined when there is no picture. To leave it to the browser would cost scrolling several
 * milliseconds each, since it makes a document of its own for every drawing.
 */
export function painted(address: string, width: number): Promise<string | undefined> {
  const wish: Wish = { address, width: Math.round(width * Math.min(devicePixelRatio, 2)) };
  const key = keyOf(wish);
  const known = kept.get(key);
  if (known) return known;
  if (kept.size >= mostKept) drop(kept.keys().next().value!);
  const made = new Promise<Painted>((resolve) => waiting.set(key, resolve)).then(({ picture, other }) => {
    // What could not be had now may be had later.
    if (!picture && !other) kept.delete(key);
    return picture ? URL.createObjectURL(picture) : other ? address : undefined;
  });
  kept.set(key, made);
  worker ??= start();
  worker.postMessage(wish);
  return made;
}

function start(): Worker {
  const started = new Worker(new URL('./pictureWorker.ts', import.meta.url), { type: 'module' });
  started.addEventListener('message', ({ data }: MessageEvent<Painted>) => {
    const key = keyOf(data);
    waiting.get(key)?.(data);
    waiting.delete(key);
  });
  return started;
}

function drop(key: string): void {
  void kept.get(key)!.then((address) => address?.startsWith('blob:') && URL.revokeObjectURL(address));
  kept.delete(key);
}

function keyOf({ address, width }: Wish): string {
  return `${width} ${address}`;
}
