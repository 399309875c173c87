import { getJson, Unreachable } from '../server/api';
import type { Role, Touch } from '../server/session';
import type { DeviceStore } from './deviceStore';
import { OpenDocument, type Surroundings } from './openDocument';

const path = '/api/shared';

/** What a guest sees of one library. */
export interface SharedSpace {
  space: string;
  /** The group's name; empty for somebody's own library. */
  group: string;
  touch: Touch;
  /** The part of the library that they see, as operations in base64. */
  library: string;
  things: SharedThing[];
  notebooks: { id: string; role: Role; pageCount: number; writtenAt: number | null }[];
  people: { id: string; name: string; colour: string }[];
}

/** One folder or notebook that was shared, and by whom. */
export interface SharedThing {
  share: string;
  node: string;
  by: string;
  with: 'person' | 'group' | 'link';
  /** The group through which one has it; else empty. */
  through: string;
  writes: boolean;
  until: number | null;
}

/** A notebook that the device may hold no longer. */
export interface Gone {
  space: string;
  notebook: string;
}

/** What was shared with the person: kept on the device, asked for anew, and opened as libraries that nobody writes into. */
export class Shared {
  spaces: readonly SharedSpace[] = [];
  libraries: readonly OpenDocument[] = [];
  private held: Gone[] = [];
  /** How many pages each space's notebooks had when it was looked through last. */
  private readonly lookedAt = new Map<string, string>();
  private readonly listeners = new Set<() => void>();

  constructor(
    private readonly around: Surroundings,
    private readonly store: DeviceStore,
  ) {}

  /** Takes what the device keeps, so that it is there at once and without a connection. */
  async start(): Promise<void> {
    const kept = ((await this.store.answer(path)) as SharedSpace[] | undefined) ?? [];
    this.held = notebooksOf(kept);
    this.take(kept);
  }

  /**
   * Asks the server what is shared now. Without a connection what is kept stays.
   * @param forget Takes off the device the notebooks that are shared no longer, and looks through spaces in which pages came or went; false to look there again.
   */
  async refresh(
    forget: (gone: Gone[], changed: readonly SharedSpace[]) => Promise<boolean>,
  ): Promise<readonly SharedSpace[]> {
    let told: SharedSpace[];
    try {
      told = await getJson<SharedSpace[]>(path);
    } catch (problem) {
      if (problem instanceof Unreachable) return this.spaces;
      throw problem;
    }
    this.take(told);
    const here = new Set(notebooksOf(told).map(({ notebook }) => notebook));
    const changed = told.filter((one) => this.lookedAt.get(one.space) !== countsOf(one));
    const isDone = await forget(
      this.held.filter(({ notebook }) => !here.has(notebook)),
      changed,
    );
    if (isDone) for (const one of changed) this.lookedAt.set(one.space, countsOf(one));
    this.held = notebooksOf(told);
    void this.store.keepAnswer(path, told).catch(() => {});
    return told;
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  private take(told: readonly SharedSpace[]): void {
    const before = new Map(
      this.spaces.map((one, i) => [one.space, { library: one.library, open: this.libraries[i]! }]),
    );
    this.libraries = told.map(({ space, library }) => {
      const known = before.get(space);
      if (known?.library === library) {
        before.delete(space);
        return known.open;
      }
      const document = new OpenDocument(this.around, space, 'library', space);
      document.openGiven(Uint8Array.from(atob(library), (letter) => letter.charCodeAt(0)));
      return document;
    });
    this.spaces = told;
    for (const listener of this.listeners) listener();
    for (const { open } of before.values()) open.close();
  }
}

const countsOf = ({ notebooks }: SharedSpace): string =>
  notebooks
    .map(({ id, pageCount }) => `${id} ${pageCount}`)
    .sort()
    .join();

const notebooksOf = (spaces: readonly SharedSpace[]): Gone[] =>
  spaces.flatMap(({ space, notebooks }) => notebooks.map(({ id }) => ({ space, notebook: id })));
