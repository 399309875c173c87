import { sentenceOf } from '../core/runtime';
import { Cancelled, Refused, Unreachable } from '../server/api';
import type { ShownPage } from '../model/items';
import { addressOf } from './address';
import { reportFault } from './faults';
import { bringHere } from './fetching';
import type { Assets } from './assets';
import type { DeviceStore } from './deviceStore';

/** What a device keeps besides what is chosen: nothing, what was opened lately, or all. */
export type KeepMode = 'opened' | 'recent' | 'all';

export interface KeepChoice {
  mode: KeepMode;
  /** The notebooks that are kept for the road. */
  road: string[];
}

/** A notebook that is to be here. */
export interface WantedNotebook {
  space: string;
  notebook: string;
  /** Changes whenever anything in it may have. */
  version: string;
  /** The files of own papers that its pages may lie on. */
  papers: ReadonlyMap<string, string>;
}

/** How far a notebook is here. */
export interface KeptNotebook {
  pages: number;
  here: number;
  /** All of it is here, as far as the server was asked. */
  isReady: boolean;
  /** Why it is not, as the server says. */
  problem?: string;
}

interface Around {
  readonly store: DeviceStore;
  readonly assets: Assets;
  list<T>(path: string): Promise<T>;
}

const key = 'quill.keep';
/** So many pages are fetched at once. */
const atOnce = 3;
/** What could not be fetched is tried again after so long, ms. */
const again = 30_000;

const pagesPath = ({ space, notebook }: { space: string; notebook: string }) =>
  `/api/spaces/${space}/notebooks/${notebook}/pages`;

/** Keeps notebooks on this device, also such that were never opened here, and keeps them current. One tab of a device does it. */
export class Keeping {
  /** Those that were chosen for the road here and that somebody waits for. */
  readonly awaited = new Set<string>();
  private chosen = read();
  private wanted: readonly WantedNotebook[] = [];
  private readonly kept = new Map<string, KeptNotebook>();
  /** The version in which each was here whole. */
  private readonly done = new Map<string, string>();
  private readonly listeners = new Set<() => void>();
  private version = 0;
  private isRunning = false;
  private isAsked = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private round = new AbortController();
  private readonly ended = new AbortController();

  constructor(
    private readonly around: Around,
    private readonly person: string,
  ) {
    const { signal } = this.ended;
    addEventListener('online', () => this.run(), { signal });
    // Another tab of the device chose.
    addEventListener('storage', (event) => event.key === key && this.take(read()), { signal });
  }

  get choice(): KeepChoice {
    return this.chosen;
  }

  choose(choice: KeepChoice): void {
    localStorage.setItem(key, JSON.stringify(choice));
    this.take(choice);
  }

  /** Keeps a notebook for the road, or leaves it to chance again; what is here of it stays. */
  keepForRoad(notebook: string, on: boolean): void {
    const { mode, road } = this.chosen;
    if (on) this.awaited.add(notebook);
    else this.awaited.delete(notebook);
    this.choose({ mode, road: [...road.filter((one) => one !== notebook), ...(on ? [notebook] : [])] });
  }

  /** How far a notebook is here; undefined as long as that was not looked at. */
  stateOf(notebook: string): KeptNotebook | undefined {
    return this.kept.get(notebook);
  }

  readonly getVersion = (): number => this.version;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** These are to be here from now on, the first ones first. */
  want(wanted: readonly WantedNotebook[]): void {
    this.wanted = wanted;
    const known = new Set(wanted.map((one) => one.notebook));
    for (const notebook of this.kept.keys())
      if (!known.has(notebook)) {
        this.kept.delete(notebook);
        this.done.delete(notebook);
      }
    this.run();
  }

  /** The addresses of all pages that are kept here: they are not let go to make room. */
  async pages(): Promise<Set<string>> {
    const addresses = new Set<string>();
    for (const one of this.wanted)
      for (const page of await this.known(one)) addresses.add(addressOf(one.space, 'page', page.id));
    return addresses;
  }

  stop(): void {
    clearTimeout(this.timer);
    this.ended.abort();
    this.round.abort();
  }

  private take(choice: KeepChoice): void {
    this.chosen = choice;
    this.tell();
  }

  private run(): void {
    clearTimeout(this.timer);
    if (this.ended.signal.aborted) return;
    // What is no longer wanted is not fetched to its end.
    this.round.abort();
    if (this.isRunning) {
      this.isAsked = true;
      return;
    }
    this.isRunning = true;
    this.round = new AbortController();
    void navigator.locks
      .request(`quill-keeping-${this.person}`, { ifAvailable: true }, (lock) => this.go(lock !== null))
      .catch((problem: unknown) => reportFault('Notebooks could not be kept on the device.', problem))
      .finally(() => {
        this.isRunning = false;
        if (!this.isAsked) return;
        this.isAsked = false;
        this.run();
      });
  }

  /** @param mayFetch Another tab fetches; this one looks how far that is. */
  private async go(mayFetch: boolean): Promise<void> {
    const { signal } = this.round;
    const { wanted } = this;
    for (const one of wanted)
      if (!mayFetch || !this.kept.has(one.notebook)) this.note(one, await this.look(one, await this.known(one)));
    let isMissing = !mayFetch && wanted.length > 0;
    for (const one of mayFetch ? wanted : []) {
      if (signal.aborted) return;
      if (this.done.get(one.notebook) === one.version) continue;
      try {
        await this.bring(one, signal);
        if (this.kept.get(one.notebook)?.isReady) this.done.set(one.notebook, one.version);
      } catch (problem) {
        if (problem instanceof Cancelled || signal.aborted) return;
        // What the server refuses, such as what is locked, it refuses until something has changed.
        isMissing ||= !(problem instanceof Refused) || problem.status >= 500;
        // Without a connection all that is here stays as it is.
        if (problem instanceof Unreachable) break;
        this.done.delete(one.notebook);
        const { pages = 0, here = 0 } = this.kept.get(one.notebook) ?? {};
        this.note(one, { pages, here, isReady: false, problem: sentenceOf(problem) });
      }
    }
    if (isMissing) this.timer = setTimeout(() => this.run(), again);
  }

  private async bring(one: WantedNotebook, signal: AbortSignal): Promise<void> {
    const { store, assets } = this.around;
    const { space, notebook } = one;
    await bringHere(store, space, 'notebook', notebook, signal);
    const pages = await this.around.list<ShownPage[]>(pagesPath(one));
    const missing = await this.missingOf(space, pages);
    let here = pages.length - missing.length;
    if (missing.length > 0) this.note(one, { pages: pages.length, here, isReady: false });
    const fetch = async () => {
      for (let page = missing.shift(); page && !signal.aborted; page = missing.shift()) {
        await bringHere(store, space, 'page', page.id, signal);
        this.note(one, { pages: pages.length, here: ++here, isReady: false });
      }
    };
    await Promise.all(Array.from({ length: atOnce }, fetch));
    for (const [paper, file] of one.papers)
      if (!signal.aborted && pages.some((page) => page.paper.includes(paper))) await assets.file(space, file);
    // Pictures that were sent after their pages come the next time.
    for (const file of await this.around.list<string[]>(`/api/spaces/${space}/notebooks/${notebook}/assets`))
      if (!signal.aborted) await assets.file(space, file);
    if (!signal.aborted) this.note(one, await this.look(one, pages));
  }

  /** The pages of a notebook as the server told them last. */
  private async known(one: WantedNotebook): Promise<ShownPage[]> {
    return ((await this.around.store.answer(pagesPath(one))) as ShownPage[] | undefined) ?? [];
  }

  private async look(one: WantedNotebook, pages: readonly ShownPage[]): Promise<KeptNotebook> {
    const [outline] = await this.around.store.reachOf([addressOf(one.space, 'notebook', one.notebook)]);
    const here = pages.length - (await this.missingOf(one.space, pages)).length;
    return { pages: pages.length, here, isReady: outline! > 0 && here === pages.length };
  }

  private async missingOf(space: string, pages: readonly ShownPage[]): Promise<ShownPage[]> {
    const reach = await this.around.store.reachOf(pages.map((page) => addressOf(space, 'page', page.id)));
    return pages.filter((page, i) => reach[i]! < (page.operations ?? 0));
  }

  private note(one: WantedNotebook, state: KeptNotebook): void {
    this.kept.set(one.notebook, state);
    this.tell();
  }

  private tell(): void {
    this.version++;
    for (const listener of this.listeners) listener();
  }
}

function read(): KeepChoice {
  try {
    const { mode, road } = JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<KeepChoice>;
    return { mode: mode === 'recent' || mode === 'all' ? mode : 'opened', road: Array.isArray(road) ? road : [] };
  } catch {
    return { mode: 'opened', road: [] };
  }
}
