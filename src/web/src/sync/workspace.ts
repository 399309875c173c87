import { type Core, type DocumentKind, loadCore } from '../core/runtime';
import { getJson, Unreachable } from '../server/api';
import type { Session, Space } from '../server/session';
import { addressOf } from './address';
import { Assets } from './assets';
import { Ahead, type LeftStroke, type LeftText, leftAhead } from './ahead';
import type { StoreEvents } from './deviceSchema';
import { DeviceStore, takeOver } from './deviceStore';
import { Keeping } from './keeping';
import { dropPictures } from './keptPictures';
import { Lecterns } from './lecterns';
import { Live } from './live';
import { reportFault } from './faults';
import { OpenDocument } from './openDocument';
import { Outbox } from './outbox';
import { Shared } from './shared';
import { Whereabouts } from './whereabouts';
import { newReplica } from './sender';
import { type Noted, Steps } from './steps';
import { resetSyncState } from './syncState';
import { Tabs } from './tabs';

/** A notebook that nobody shows any more stays open for so long, ms: from its page to its overview it is not read anew. */
const lingering = 3_000;

interface Opened {
  document: OpenDocument;
  opening: Promise<OpenDocument>;
  users: number;
  leaving?: ReturnType<typeof setTimeout>;
  /** It is closed as soon as nobody shows it. */
  mayNotLinger?: boolean;
  isReady?: boolean;
  /** It was only read from the device until somebody shows it. */
  isPrepared?: boolean;
}

/** Everything that is open for the person signed in: Core, the device's store, the outbox, the live connection, and documents shared by who shows them. */
export class Workspace {
  /** The libraries of all spaces; they stay open as long as somebody is signed in, since every screen asks them something. */
  libraries: readonly OpenDocument[] = [];
  private spaces: readonly Space[] = [];
  readonly steps: Steps;
  /** What was shared with the person out of libraries that they are not in. */
  readonly shared: Shared;
  /** Who looks at which page now. */
  readonly whereabouts: Whereabouts;
  /** Who teaches from which notebook. */
  readonly lecterns: Lecterns;
  /** What is kept here for when there is no connection. */
  readonly keeping: Keeping;
  private readonly fresh = new Set<string>();
  private readonly librariesListeners = new Set<() => void>();
  private readonly unfollow = new Map<OpenDocument, () => void>();
  private readonly open = new Map<string, Opened>();

  private constructor(
    readonly core: Core,
    readonly store: DeviceStore,
    readonly outbox: Outbox,
    readonly live: Live,
    readonly ahead: Ahead,
    readonly assets: Assets,
    person: string,
  ) {
    this.steps = new Steps(core);
    this.shared = new Shared(this, store);
    this.shared.subscribe(() => this.guardAll());
    this.whereabouts = new Whereabouts(live);
    this.lecterns = new Lecterns(live, this.whereabouts);
    this.keeping = new Keeping(this, person);
    outbox.onMade = (address, bytes) => this.open.get(address)?.document.hear(bytes);
    outbox.onStored = (address, operations) => this.open.get(address)?.document.acknowledge(operations);
    outbox.onAnew = (addresses) => {
      for (const address of addresses) void this.open.get(address)?.document.reload();
    };
  }

  static async start(session: Session, events: StoreEvents): Promise<Workspace> {
    const { id } = session.person;
    const [core, store] = await Promise.all([loadCore(), DeviceStore.open(id, events)]);
    core.DocumentBridge.Start(newReplica(), id);
    const ahead = await Ahead.open(id);
    const left = await leftAhead(id);
    await takeOver(store, left.operations);
    const outbox = new Outbox(core, store, new Tabs(id), id, ahead);
    outbox.onLeft = () => void outbox.saved().then(() => location.reload());
    outbox.flush();
    // Asked once and never again by most browsers; without it the device may be cleared when it runs short of room.
    void navigator.storage.persist().catch(() => {});
    const assets = new Assets(core, store, id);
    const live = new Live(id, () => {
      outbox.flush();
      assets.flush();
    });
    const workspace = new Workspace(core, store, outbox, live, ahead, assets, id);
    assets.flush();
    workspace.spaces = session.spaces;
    await Promise.all([workspace.follow(session.spaces.map((space) => space.id)), workspace.shared.start()]);
    await workspace.finish(left.strokes);
    await workspace.finishTyping(left.texts);
    left.clear();
    return workspace;
  }

  /** What one may do to what others wrote in a space; as a guest, by the role that was given for most of it. */
  guardOf(space: string): { touch: string; role: string } {
    const own = this.spaces.find((one) => one.id === space);
    if (own) return { touch: own.touch ?? 'everything', role: own.role };
    return { touch: this.shared.spaces.find((one) => one.space === space)?.touch ?? 'everything', role: 'writer' };
  }

  /** Takes note of what the session says of spaces, on pages that are open as well. */
  knowSpaces(spaces: readonly Space[]): void {
    this.spaces = spaces;
    this.guardAll();
  }

  private guardAll(): void {
    for (const { document } of this.open.values()) document.guard();
  }

  /** Opens the libraries of these spaces, in this order, and lets go of what is here of all others; what of them was not sent stays until the person decides of it. */
  async follow(spaces: readonly string[]): Promise<void> {
    const before = this.libraries;
    const gone = before.filter(({ space }) => !spaces.includes(space));
    const opened = await Promise.all(
      spaces.map((space) => before.find((library) => library.space === space) ?? this.acquire(space, 'library', space)),
    );
    this.libraries = opened;
    for (const library of opened)
      if (!before.includes(library))
        this.unfollow.set(
          library,
          library.subscribe(() => this.tellLibraries()),
        );
    for (const library of gone) {
      this.unfollow.get(library)?.();
      this.unfollow.delete(library);
      this.release(library.space, 'library', library.space);
    }
    this.tellLibraries();
    for (const { space } of gone) await this.leave(space);
  }

  /** Hears of every change of any library, and of libraries that come and go. */
  readonly subscribeLibraries = (listener: () => void): (() => void) => {
    this.librariesListeners.add(listener);
    return () => this.librariesListeners.delete(listener);
  };

  private tellLibraries(): void {
    for (const listener of this.librariesListeners) listener();
  }

  /** Takes what is here of a space off this device. */
  private async leave(space: string): Promise<void> {
    for (const address of this.open.keys()) if (address.startsWith(`${space}/`)) this.letGo(address);
    await this.store.forgetSpace(space);
    await dropPictures((path) => path.startsWith(`/api/spaces/${space}/`));
  }

  /** Strokes that were in the hand when their tab was closed are ink as far as they were written. */
  private async finish(strokes: LeftStroke[]): Promise<void> {
    const { PenBridge } = this.core;
    for (const { pen, stabilising, layer, startedAt, samples, ...left } of strokes)
      await this.finishOn(left, 'A stroke that was left could not be finished.', undefined, (document) => {
        const stroke = PenBridge.Begin(pen, stabilising);
        PenBridge.Add(stroke, samples);
        PenBridge.End(stroke);
        document.perform((handle, now) => PenBridge.Keep(stroke, handle, layer, startedAt, now));
      });
  }

  /** What was typed when its tab was closed stands where it was typed. */
  private async finishTyping(texts: LeftText[]): Promise<void> {
    for (const { typed, ...left } of texts)
      await this.finishOn(left, 'What was typed and left could not be finished.', typed, (document) => {
        document.perform((handle, now) => this.core.TextBridge.Finish(handle, typed, now));
      });
  }

  /** Finishes on a document what a tab left; where that does not go, the fault is reported with what was left. */
  private async finishOn(
    { space, kind = 'page', page }: { space: string; kind?: DocumentKind; page: string },
    fault: string,
    left: Uint8Array | undefined,
    finish: (document: OpenDocument) => void,
  ): Promise<void> {
    const document = await this.acquire(space, kind, page);
    try {
      finish(document);
      await this.outbox.saved();
    } catch (problem) {
      reportFault(fault, problem, document.address, left);
    } finally {
      this.release(space, kind, page);
    }
  }

  /** A document was made here just now, so when it is opened first there is nothing to wait for from the server. */
  made(id: string): void {
    this.fresh.add(id);
  }

  /** The same of a document whose id was drawn at random just now: it is open at once, without a look into the device's store, and stays so until somebody shows it. */
  openNew(space: string, kind: DocumentKind, id: string): OpenDocument {
    const address = addressOf(space, kind, id);
    const document = new OpenDocument(this, space, kind, id);
    document.openNew();
    const leaving = setTimeout(() => this.closeUnused(address), lingering);
    this.open.set(address, { document, opening: Promise.resolve(document), users: 0, leaving, isReady: true });
    return document;
  }

  /** Opens a document, or joins who has it open already. Every call is answered by one {@link release}. */
  acquire(space: string, kind: DocumentKind, id: string): Promise<OpenDocument> {
    const address = addressOf(space, kind, id);
    let entry = this.open.get(address);
    if (!entry) {
      // It listens from the first moment: what another tab makes while the store is read is not missed.
      const document = new OpenDocument(this, space, kind, id);
      const opening = document.open(this.fresh.delete(id)).then(() => document);
      const made: Opened = { document, opening, users: 0 };
      void opening.then(() => (made.isReady = true));
      entry = made;
      this.open.set(address, made);
    }
    clearTimeout(entry.leaving);
    if (entry.isPrepared) {
      entry.isPrepared = false;
      entry.document.follow();
    }
    entry.users++;
    return entry.opening;
  }

  release(space: string, kind: DocumentKind, id: string): void {
    const address = addressOf(space, kind, id);
    const entry = this.open.get(address);
    if (!entry || --entry.users > 0) return;
    // Who shows it next may ask for it in the same breath.
    const after = kind === 'notebook' && !entry.mayNotLinger ? lingering : 0;
    entry.leaving = setTimeout(() => this.closeUnused(address), after);
  }

  /** Reads what the device holds of a page that may be turned to next, so that it is there at once. Nobody hears of it; it is answered by one {@link unprepare}. */
  async prepare(space: string, id: string): Promise<void> {
    const address = addressOf(space, 'page', id);
    if (this.open.has(address)) return;
    const document = new OpenDocument(this, space, 'page', id);
    const opening = document.prepare().then(() => document);
    const entry: Opened = { document, opening, users: 0, isPrepared: true };
    this.open.set(address, entry);
    await opening;
    // Of what is not on the device the server is asked when it is shown.
    if (document.isHere) entry.isReady = true;
    else if (entry.users === 0 && this.open.get(address) === entry) this.closeUnused(address);
  }

  unprepare(space: string, id: string): void {
    const address = addressOf(space, 'page', id);
    const entry = this.open.get(address);
    if (entry?.isPrepared) entry.leaving = setTimeout(() => this.closeUnused(address), 0);
  }

  /** A document that somebody has open already, and that can be shown at once. */
  ready(space: string, kind: DocumentKind, id: string): OpenDocument | undefined {
    const entry = this.open.get(addressOf(space, kind, id));
    return entry?.isReady ? entry.document : undefined;
  }

  /** What is taken off this device is closed as soon as nobody shows it. */
  letGo(address: string): void {
    const entry = this.open.get(address);
    if (!entry) return;
    entry.mayNotLinger = true;
    if (entry.users === 0) this.closeUnused(address);
  }

  private closeUnused(address: string): void {
    const entry = this.open.get(address)!;
    clearTimeout(entry.leaving);
    this.open.delete(address);
    void entry.opening.then(() => entry.document.close());
  }

  /** Takes back what was done in libraries and notebooks, last first. */
  async takeBack(noted: readonly Noted[]): Promise<void> {
    for (const { space, kind, id, changes } of noted.toReversed()) {
      const document = await this.acquire(space, kind, id);
      try {
        document.performTogether((handle, now) => this.core.UndoBridge.Back(handle, changes, now));
      } finally {
        this.release(space, kind, id);
      }
    }
  }

  /** A list from the server; without a connection, its last answer, whatever the query was. */
  async list<T>(path: string, query = ''): Promise<T> {
    try {
      const answer = await getJson<T>(path + query);
      void this.store.keepAnswer(path, answer).catch(() => {});
      return answer;
    } catch (problem) {
      const kept = problem instanceof Unreachable ? await this.store.answer(path) : undefined;
      if (kept !== undefined) return kept as T;
      throw problem;
    }
  }

  stop(): void {
    for (const { leaving } of this.open.values()) clearTimeout(leaving);
    resetSyncState();
    this.outbox.stop();
    this.assets.stop();
    this.keeping.stop();
    this.live.stop();
    this.store.close();
  }
}
