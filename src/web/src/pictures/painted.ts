import type { Order, Painted, Wish } from './pictureWorker';

/** So many painted pictures stay in memory, a few kilobytes each. */
const mostKept = 600;

interface Kept {
  /** Its address; undefined when there is no picture. */
  picture: Promise<string | undefined>;
  /** Tells what came of it; undefined once it is told. */
  tell: ((painted: Painted) => void) | undefined;
  users: number;
}

const kept = new Map<string, Kept>();
let worker: Worker | undefined;

/**
 * A page's picture, painted by a worker in just as many pixels as it is shown in. To leave it to the browser would cost scrolling several
 * milliseconds each, since it makes a document of its own for every drawing. Who no longer wants it leaves.
 */
export function painted(address: string, width: number): { picture: Promise<string | undefined>; leave: () => void } {
  const wish: Wish = { address, width: Math.round(width * Math.min(devicePixelRatio, 2)) };
  const key = `${wish.width} ${address}`;
  const entry = kept.get(key) ?? ask(wish, key);
  entry.users++;
  return { picture: entry.picture, leave: () => leave(entry, key, wish) };
}

function ask(wish: Wish, key: string): Kept {
  if (kept.size >= mostKept) dropOldest();
  const entry: Kept = { picture: Promise.resolve(undefined), tell: undefined, users: 0 };
  entry.picture = new Promise<Painted>((resolve) => (entry.tell = resolve)).then(({ picture, other }) => {
    entry.tell = undefined;
    // What could not be had now may be had later.
    if (!picture && !other) kept.delete(key);
    return picture ? URL.createObjectURL(picture) : other ? wish.address : undefined;
  });
  kept.set(key, entry);
  order({ ...wish, key });
  return entry;
}

/** A picture on its way that nobody waits for any more is not made. */
function leave(entry: Kept, key: string, wish: Wish): void {
  if (--entry.users > 0 || !entry.tell || kept.get(key) !== entry) return;
  kept.delete(key);
  order({ ...wish, key, over: true });
}

function order(what: Order): void {
  getPainter().postMessage(what);
}

/** The worker that paints; it is started when it is first asked for. */
export function getPainter(): Worker {
  if (worker) return worker;
  worker = new Worker(new URL('./pictureWorker.ts', import.meta.url), { type: 'module' });
  worker.addEventListener('message', ({ data }: MessageEvent<Painted>) => kept.get(data.key)?.tell?.(data));
  return worker;
}

/** Drops all pictures; those that are shown stay until they are not. */
export function forgetAllPainted(): void {
  for (const key of [...kept.keys()]) drop(key);
}

/** Drops the pictures of some pages. */
export function forgetPainted(pages: string[]): void {
  for (const key of [...kept.keys()]) if (pages.some((page) => key.includes(page))) drop(key);
}

/** The one that was painted first and is not shown. */
function dropOldest(): void {
  const oldest = [...kept].find(([, entry]) => entry.users === 0 && !entry.tell);
  if (oldest) drop(oldest[0]);
}

function drop(key: string): void {
  const entry = kept.get(key)!;
  kept.delete(key);
  void entry.picture.then((address) => address?.startsWith('blob:') && URL.revokeObjectURL(address));
}
