import { paintPicture, readPicture } from './smallPicture';

/** A picture to be painted so wide, in pixels. */
export interface Wish {
  address: string;
  width: number;
}

/** What the worker is told: a wish, or that it is no longer one. */
export interface Order extends Wish {
  key: string;
  over?: boolean;
}

/** The picture painted; nothing when there is none, and `other` when the browser has to show it. */
export interface Painted {
  key: string;
  picture?: Blob;
  other?: boolean;
}

/** So many are fetched and painted at once: the first is there sooner than when all come together. */
const mostAtWork = 4;

const waiting = new Map<string, Order>();
const atWork = new Map<string, AbortController>();
let working = 0;

addEventListener('message', ({ data }: MessageEvent<Order>) => {
  if (data.over) {
    waiting.delete(data.key);
    atWork.get(data.key)?.abort();
  } else {
    waiting.set(data.key, data);
    next();
  }
});

/** Those asked for first come first. */
function next(): void {
  for (const [key, order] of waiting) {
    if (working >= mostAtWork) return;
    waiting.delete(key);
    working++;
    void work(order).finally(() => {
      working--;
      next();
    });
  }
}

async function work({ key, ...wish }: Order): Promise<void> {
  const ended = new AbortController();
  atWork.set(key, ended);
  const painted = await paint(wish, ended.signal).catch(() => ({}));
  if (atWork.get(key) === ended) atWork.delete(key);
  if (!ended.signal.aborted) postMessage({ key, ...painted });
}

async function paint({ address, width }: Wish, signal: AbortSignal): Promise<Omit<Painted, 'key'>> {
  const response = await fetch(address, { signal });
  if (!response.ok) return {};
  const picture = readPicture(await response.text());
  if (!picture) return { other: true };
  const canvas = new OffscreenCanvas(width, Math.max(1, Math.round((width * picture.height) / picture.width)));
  paintPicture(canvas, picture);
  return { picture: await canvas.convertToBlob() };
}
