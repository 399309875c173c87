import { t } from '@lingui/core/macro';
import type { FileLook } from '../core/assetBridge';
import type { Core } from '../core/runtime';
import { Cancelled, isBusy, Refused, request, Unreachable } from '../server/api';
import type { DeviceStore, KeptAsset } from './deviceStore';
import { reportFault } from './faults';
import { setSyncState } from './syncState';

/** A piece that is sent at once, bytes: as much as the server takes. */
const pieceBytes = 1024 * 1024;
/** What the server has as well may take so much room here, bytes. */
const mostHeld = 200 * 1024 * 1024;
/** What could not be sent, or is not there yet, is tried again after so long at first, and at most, ms. */
const leastPause = 2_000;
const mostPause = 60_000;

/** How far the server has come with a file. */
interface Received {
  size: number;
  isWhole: boolean;
}

export const assetPath = (space: string, asset: string): string => `/api/spaces/${space}/assets/${asset}`;

/** A file that was kept: what it is called in its space, and its measures. */
export interface Kept {
  asset: string;
  width: number;
  height: number;
}

/**
 * Pictures and files of spaces. What is brought in is on the device first and shown from there; it is sent piece by piece when there is a connection, and goes on
 * where it broke off. What others brought in is fetched when it is shown, and kept. Who names a file may be faster than the file: it is looked for until it is there.
 */
export class Assets {
  private running = false;
  private again = false;
  private pause = leastPause;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly looking = new Set<() => void>();
  /** What the server would not have since the start. */
  private readonly refused = new Set<string>();
  private readonly ended = new AbortController();

  constructor(
    private readonly core: Core,
    private readonly store: DeviceStore,
    private readonly person: string,
  ) {
    addEventListener('online', () => this.flush(), { signal: this.ended.signal });
  }

  /** Keeps a file for a space. Throws a sentence where it may not be kept, and when the device has no room for it. */
  async keep(space: string, file: Blob): Promise<Kept> {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const { AssetBridge } = this.core;
    const { type, width, height, problem } = JSON.parse(AssetBridge.Look(bytes)) as FileLook;
    if (problem) throw new Error(problem);
    const asset = AssetBridge.IdOf(new Uint8Array(await crypto.subtle.digest('SHA-256', bytes)));
    try {
      await this.store.assets.keep({
        space,
        id: asset,
        file: new Blob([bytes], { type }),
        usedAt: Date.now(),
        waiting: 1,
      });
    } catch {
      throw new Error(t`This device has no room for it. Nothing was kept.`);
    }
    await this.count();
    this.flush();
    return { asset, width, height };
  }

  /** Keeps files of one space in another as well, each as soon as it can be had. */
  async carry(assets: readonly string[], from: string, to: string): Promise<void> {
    if (from === to || !from) return;
    for (const asset of assets) {
      if (await this.store.assets.get(to, asset)) continue;
      await this.keep(to, await this.whenHere(from, asset, this.ended.signal));
    }
  }

  /** A file from the device, or else from the server; undefined where the server does not have it, or cannot be reached. */
  async file(space: string, asset: string): Promise<Blob | undefined> {
    const kept = await this.store.assets.get(space, asset);
    if (kept) return kept.file;
    try {
      const file = await (await request('GET', assetPath(space, asset))).blob();
      await this.store.assets
        .keep({ space, id: asset, file, usedAt: Date.now() })
        .then(() => this.store.assets.trim(mostHeld))
        // Without room it is shown all the same.
        .catch(() => {});
      return file;
    } catch (problem) {
      if (problem instanceof Unreachable || (problem instanceof Refused && mayChange(problem.status))) return undefined;
      throw problem;
    }
  }

  /** The same, waiting until it can be had. */
  async whenHere(space: string, asset: string, signal: AbortSignal): Promise<Blob> {
    for (let pause = leastPause; ; pause = Math.min(pause * 2, mostPause)) {
      const file = await this.file(space, asset);
      if (file) return file;
      await this.change(pause, signal);
      if (signal.aborted) throw new Cancelled();
    }
  }

  /** Somebody sent something, or there is a connection again: what is looked for may be there. */
  lookAgain(): void {
    for (const look of this.looking) look();
  }

  /** Sends what waits. */
  flush(): void {
    clearTimeout(this.timer);
    if (this.ended.signal.aborted) return;
    this.lookAgain();
    if (this.running) {
      this.again = true;
      return;
    }
    this.running = true;
    void navigator.locks
      .request(`quill-assets-${this.person}`, () => this.sendAll())
      .catch((problem: unknown) => {
        // The store was closed meanwhile, which is said elsewhere.
        if (!this.ended.signal.aborted) reportFault('Pictures could not be sent.', problem);
      })
      .finally(() => {
        this.running = false;
        if (!this.again) return;
        this.again = false;
        this.flush();
      });
  }

  stop(): void {
    this.ended.abort();
    clearTimeout(this.timer);
  }

  /** One after the other: what one meets with holds up no other, but for what would meet them all. */
  private async sendAll(): Promise<void> {
    let trouble = '';
    // What was refused is tried once more after a start: whoever was taken out of a group may be in it again.
    const [waiting, refused] = await Promise.all([this.store.assets.waiting(), this.store.assets.refused()]);
    for (const asset of [...waiting, ...refused.filter(({ id }) => !this.refused.has(id))]) {
      try {
        await this.send(asset);
        await this.store.assets.settle(asset.space, asset.id);
        this.pause = leastPause;
      } catch (problem) {
        if (this.ended.signal.aborted) return;
        if (problem instanceof Refused && isFinal(problem.status)) {
          this.refused.add(asset.id);
          await this.store.assets.settle(asset.space, asset.id, problem.message);
        } else {
          // The library is full, which may change; all else says the same of every file.
          if (problem instanceof Refused && !isBusy(problem.status)) trouble = problem.message;
          this.timer = setTimeout(() => this.flush(), this.pause);
          this.pause = Math.min(this.pause * 2, mostPause);
          break;
        }
      }
    }
    await this.count(trouble);
  }

  private async send({ space, id, file }: KeptAsset): Promise<void> {
    const path = assetPath(space, id);
    const { signal } = this.ended;
    const ask = async (method: string, end: string, body?: Blob) =>
      (await (await request(method, path + end, body, body && 'application/octet-stream', signal)).json()) as Received;
    let { size, isWhole } = await ask('GET', '/received');
    while (!isWhole) {
      const before = size;
      ({ size, isWhole } = await ask(
        'PUT',
        `/pieces/${before}?of=${file.size}`,
        file.slice(before, before + pieceBytes),
      ));
      if (!isWhole && size <= before) throw new Unreachable();
    }
  }

  private async count(trouble = ''): Promise<void> {
    const [waiting, refused] = await Promise.all([this.store.assets.waiting(), this.store.assets.refused()]);
    if (this.ended.signal.aborted) return;
    setSyncState({ assets: waiting.length, assetTrouble: trouble || (refused[0]?.refused ?? '') });
  }

  /** Resolves after a pause, or when something may have changed. */
  private change(pause: number, signal: AbortSignal): Promise<void> {
    return new Promise((resolve) => {
      const done = () => {
        clearTimeout(timer);
        this.looking.delete(done);
        signal.removeEventListener('abort', done);
        resolve();
      };
      const timer = setTimeout(done, pause);
      this.looking.add(done);
      signal.addEventListener('abort', done);
    });
  }
}

/** Not here yet, or not to be had at present. */
const mayChange = (status: number): boolean => status === 404 || status === 401 || isBusy(status);

/** What is wrong with the file or with who sends it, which trying again does not change. */
const isFinal = (status: number): boolean => status === 400 || status === 403 || status === 404 || status === 413;
