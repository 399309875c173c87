import { type Core, type DocumentKind, documentKinds, isPaper } from '../core/runtime';
import { Unreachable } from '../server/api';
import { addressOf } from './address';
import type { DeviceStore, HeldBatch, Waiting } from './deviceStore';
import { reportFault } from './faults';
import { type Fetched, fetchAfter } from './fetching';
import { unframed } from './frames';
import type { Live, LiveListener } from './live';
import type { Acknowledged, Outbox } from './outbox';
import { paced } from './paced';
import { Reached } from './reached';
import type { Ahead, StrokeAhead, StrokeHead, TextAhead } from './ahead';
import type { Steps } from './steps';

/** When the server could not answer, or with less than there is, it is asked again after so long at first, and at most, ms. */
const leastPause = 500;
const mostPause = 30_000;

/** All that stands on a page is asked for no more often than this, ms. */
const betweenWholes = 700;

/** Core takes so many bytes of operations in less than a frame. */
const quicklyTaken = 60_000;

/** What a document needs of its surroundings. */
export interface Surroundings {
  core: Core;
  store: DeviceStore;
  outbox: Outbox;
  live: Live;
  steps: Steps;
  ahead: Ahead;
  /** What one may do to what others wrote in a space, and as what. */
  guardOf(space: string): { touch: string; role: string };
}

/** A document that is shown: held by Core, kept on the device, followed live. */
export class OpenDocument {
  /** When so many batches were kept of it, they become one when it is closed. */
  static rowsBeforeCompacting = 200;

  /** Set by who shows a page. */
  onWet?: LiveListener['wet'];
  onPen?: LiveListener['pen'];
  onHeld?: LiveListener['held'];
  onCaret?: LiveListener['caret'];
  private toldPresent: LiveListener['present'] | undefined;
  /** Who was there last, for who asks later. */
  private people: string[] | undefined;
  /** Set by who types into a page: called before anything is done to it. */
  beforeChange?: () => void;
  /** Somebody's operations were stored: the batch as it came. */
  onArrived?: (batch: Uint8Array) => void;

  /** How the page was painted when it was open last; only while it is the same still. */
  outlines: Uint8Array[] | undefined;

  readonly address: string;

  /** False while it is shown in colours that are not its own; how it is painted then is not kept. */
  isPlain = true;

  private coreHandle: number;
  /** What the device holds of a page whose outlines can be painted first; Core takes it when it is first asked for the page. */
  private held: HeldBatch[] = [];
  private readonly whenSettled: (() => void)[] = [];
  /** What was heard while the device's store is being read. */
  private early: (() => void)[] | undefined = [];
  private reached = new Reached();
  /** The highest number that was heard of. */
  private heard = 0;
  /** The highest number of what is told without being passed on. */
  private latest = 0;
  private readonly hearLater = paced(betweenWholes, () => this.once(() => this.hearOf(this.latest)));
  private rows = 0;
  /** What is here is what stands, without its past, which is closed. */
  private isStanding = false;
  private generation = 0;
  private version = 0;
  private catching: Promise<void> | undefined;
  private asked = false;
  private pause = leastPause;
  private askingAgain: ReturnType<typeof setTimeout> | undefined;
  private closed = false;
  private isFollowed = false;
  private readonly ways = new Set<string>();
  private readonly listeners = new Set<() => void>();

  constructor(
    private readonly around: Surroundings,
    readonly space: string,
    readonly kind: DocumentKind,
    readonly id: string,
  ) {
    this.coreHandle = around.core.DocumentBridge.Open(documentKinds[kind]);
    this.address = addressOf(space, kind, id);
    this.guard();
  }

  /**
   * It is to be shown in another way for a while: who shows it takes it anew.
   * @param way What is other about it.
   * @param isOn Whether it is; without any it is shown as it is.
   */
  look(way: 'tint' | 'past', isOn: boolean, change: (handle: number) => void): void {
    if (isOn) this.ways.add(way);
    else this.ways.delete(way);
    this.isPlain = this.ways.size === 0;
    change(this.handle);
    this.changed();
  }

  /** What is on it has come to lie elsewhere, though nothing was done to it: who shows it takes it anew. */
  wasCarried(): void {
    this.changed();
  }

  /** Tools pass over what may not be changed here; asked for again when that is another. */
  guard(): void {
    if (!isPaper(this.kind)) return;
    const { touch, role } = this.around.guardOf(this.space);
    this.around.core.PageBridge.Guard(this.coreHandle, touch, role);
  }

  /** Core's handle of it; Core then has all of it. */
  get handle(): number {
    this.settle();
    return this.coreHandle;
  }

  /** Whether Core has not taken it yet: all that can be shown of it are its outlines. */
  get isHeld(): boolean {
    return this.held.length > 0;
  }

  /** Whether it is held without outlines, and Core takes it sooner than another frame is shown. */
  get isQuicklySettled(): boolean {
    const size = this.held.reduce((sum, { bytes }) => sum + bytes.length, 0);
    return this.isHeld && !this.outlines && size <= quicklyTaken;
  }

  /** Whether anything of it is known here: from the device, from the server, or made in this moment. */
  get isHere(): boolean {
    return this.reached.furthest > 0 || this.version > 0;
  }

  /** Lets Core take what is held. */
  settle(): void {
    if (!this.isHeld) return;
    const held = this.held.splice(0);
    const unreadable = held.filter(({ bytes }) => {
      try {
        this.around.core.DocumentBridge.Apply(this.coreHandle, bytes);
        return false;
      } catch (problem) {
        reportFault('This device holds something that cannot be read.', problem, this.address, bytes);
        return true;
      }
    });
    if (unreadable.length > 0) void this.setAside(unreadable);
    for (const then of this.whenSettled.splice(0)) then();
    this.version++;
    // A component may be the one that asked, and be in the middle of rendering.
    queueMicrotask(() => this.tell());
  }

  /** As soon as Core has all of it, and before it changes further: at once, or later. */
  afterSettling(then: () => void): void {
    if (this.isHeld) this.whenSettled.push(then);
    else then();
  }

  /** Shows what the device holds at once; what the server has more follows. Waits for the server only when the device holds nothing. */
  async open(isNew: boolean): Promise<void> {
    await this.readDevice();
    if (isNew) void this.around.store.keepEmpty(this.address).catch(() => {});
    else if (this.reached.complete === 0) await this.catchUp();
    if (!this.closed) this.follow();
  }

  /** Opens what was made in this moment under an id that nobody had before: there is nothing of it anywhere. */
  openNew(): void {
    this.early = undefined;
    void this.around.store.keepEmpty(this.address).catch(() => {});
    this.follow();
  }

  /** Opens what is given whole and that nobody writes into: a guest's part of a library. It is neither kept nor followed. */
  openGiven(batch: Uint8Array): void {
    this.early = undefined;
    this.around.core.DocumentBridge.Apply(this.coreHandle, batch);
    this.version++;
  }

  /** Reads what the device holds, or else fetches what the server has, and no more: Core takes it, and others hear of it, when it is shown. */
  async prepare(): Promise<void> {
    await this.readDevice(undefined, true);
    if (this.reached.furthest > 0 || this.isHere || this.isHeld) return;
    const fetched = await this.fetchAfter(0).catch(() => undefined);
    // Whoever shows it by now asks by itself.
    if (!fetched || fetched.last === 0 || this.closed || this.isFollowed) return;
    const { last, batch, isStanding } = fetched;
    this.held.push({ bytes: batch });
    this.reached.add(1, last);
    this.rows++;
    this.isStanding = isStanding;
    const { store } = this.around;
    void (
      isStanding ? store.keepAnew(this.address, last, batch, true) : store.keep(this.address, 1, last, batch)
    ).catch(() => {});
  }

  /** Who is told who is there: at once what is known, and then whenever it changes. */
  set onPresent(told: LiveListener['present'] | undefined) {
    this.toldPresent = told;
    if (this.people) told?.(this.people);
  }

  /** Follows what others do, and asks for what is not here yet. */
  follow(): void {
    this.isFollowed = true;
    this.around.live.join(this.address, {
      stored: (first, count, batch) => this.receive(first, count, batch),
      later: (last) => {
        this.latest = Math.max(this.latest, last);
        this.hearLater();
      },
      wet: (...piece) => this.onWet?.(...piece),
      pen: (...place) => this.onPen?.(...place),
      held: (...frame) => this.onHeld?.(...frame),
      caret: (...at) => this.onCaret?.(...at),
      present: (people) => {
        this.people = people;
        this.toldPresent?.(people);
      },
      joined: () => void this.catchUp(),
    });
    void this.catchUp();
  }

  /** Changes with every change of the document; for `useSyncExternalStore`. */
  readonly getVersion = (): number => this.version;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Makes an operation through Core, which applies it at once, and puts it into the outbox. False when there was nothing to do. */
  perform(make: (handle: number, now: number) => Uint8Array): boolean {
    const bytes = this.make(make);
    if (bytes.length === 0) return false;
    this.note();
    this.made(bytes);
    void this.around.outbox.add(this.waiting(bytes));
    return true;
  }

  /** The same for operations that belong together, each framed by a length of four bytes: the device keeps all of them or none. False when there was nothing to do. */
  performTogether(make: (handle: number, now: number) => Uint8Array): boolean {
    const frames = unframed(this.make(make));
    if (frames.length > 0) this.note();
    void this.keep(frames);
    return frames.length > 0;
  }

  /** Makes operations of several documents, each framed: the device keeps all of them or none. When one cannot be made, what was made of the others is taken back. What is given besides, of documents that nobody has open, is kept with them. Answers with those of each document. */
  static performAcross(
    steps: readonly [OpenDocument, (handle: number, now: number) => Uint8Array][],
    also: readonly Waiting[] = [],
  ): Uint8Array[][] {
    const made: { document: OpenDocument; frames: Uint8Array[] }[] = [];
    try {
      for (const [document, make] of steps) {
        const frames = unframed(document.make(make));
        if (frames.length > 0) document.note();
        made.push({ document, frames });
      }
    } catch (problem) {
      for (const { document } of made) void document.reload();
      throw problem;
    }
    for (const { document, frames } of made) if (frames.length > 0) document.made(...frames);
    const waiting = made.flatMap(({ document, frames }) => frames.map((bytes) => document.waiting(bytes)));
    void steps[0]?.[0].around.outbox.add(...waiting, ...also);
    return made.map(({ frames }) => frames);
  }

  /** The same for many operations at once; resolves with their number once all are kept on the device. */
  async performAll(make: (handle: number, now: number) => Uint8Array): Promise<number> {
    const frames = unframed(this.make(make));
    if (frames.length > 0) this.note();
    await this.keep(frames);
    return frames.length;
  }

  private make(make: (handle: number, now: number) => Uint8Array): Uint8Array {
    this.beforeChange?.();
    return make(this.handle, Date.now());
  }

  private note(): void {
    if (!isPaper(this.kind)) this.around.steps.note(this.space, this.kind, this.id);
  }

  private keep(frames: Uint8Array[]): Promise<void> {
    if (frames.length === 0) return Promise.resolve();
    this.made(...frames);
    return this.around.outbox.add(...frames.map((bytes) => this.waiting(bytes)));
  }

  private waiting(bytes: Uint8Array): Waiting {
    return { space: this.space, kind: this.kind, document: this.address, bytes };
  }

  /** Writes ahead what is typed into it until it is an operation. */
  textAhead(): TextAhead {
    return this.around.ahead.text({ space: this.space, kind: this.kind, page: this.id });
  }

  /** Something is being typed into it that is no operation yet: it is shown, but how it is painted is not kept. */
  retyped(isPending: boolean): void {
    if (isPending) this.ways.add('typed');
    else this.ways.delete('typed');
    this.isPlain = this.ways.size === 0;
    this.changed();
  }

  /** Writes a stroke of it ahead while it is in the hand. */
  strokeAhead(head: Omit<StrokeHead, 'space' | 'kind' | 'page'>): StrokeAhead {
    return this.around.ahead.stroke({ ...head, space: this.space, kind: this.kind, page: this.id });
  }

  /** Keeps how the page is painted for the next opening; false when something of it is still on its way. */
  keepOutlines(packets: Uint8Array[]): Promise<boolean> {
    const { store, core } = this.around;
    return store
      .keepOutlines({ id: this.address, sequence: this.reached.complete, build: core.PageBridge.Build(), packets })
      .catch(() => false);
  }

  /** Another tab made an operation of it. */
  hear(bytes: Uint8Array): void {
    this.once(() => this.tryTo(() => this.apply(bytes)));
  }

  /** The server has stored operations that were made on this device, in this tab or another. */
  acknowledge(operations: Acknowledged[]): void {
    this.once(() => {
      for (const { sequence, bytes } of operations) {
        this.rows++;
        // Applying twice is nothing; what another tab made may not be here yet.
        this.apply(bytes);
        this.reached.add(sequence, sequence);
      }
      this.hearOf(operations.at(-1)?.sequence ?? 0);
    });
  }

  /** Reads the device's store afresh, since something that was applied here is no longer there, or is another. */
  async reload(): Promise<void> {
    // What is being read may be from before: it is read once more.
    if (this.early) return void this.early.push(() => void this.reload());
    this.early = [];
    // Until it has been read, who shows it goes on with what there is.
    await this.readDevice(() => this.openAnew());
    if (this.closed) return;
    this.settle();
    this.changed();
  }

  /** Core has nothing of it any more. */
  private openAnew(): void {
    const { DocumentBridge } = this.around.core;
    const before = this.coreHandle;
    this.coreHandle = DocumentBridge.Open(documentKinds[this.kind]);
    this.guard();
    DocumentBridge.Close(before);
  }

  close(): void {
    const { live, store, core } = this.around;
    this.closed = true;
    clearTimeout(this.askingAgain);
    live.leave(this.address);
    if (this.rows > OpenDocument.rowsBeforeCompacting && !this.isHeld && !this.early) void this.compact(store, core);
    else this.forgetCore();
    this.listeners.clear();
  }

  private async compact(store: DeviceStore, core: Core): Promise<void> {
    const { complete } = this.reached;
    const snapshot = core.DocumentBridge.Snapshot(this.coreHandle);
    this.forgetCore();
    // What is in memory alone may still be refused.
    if ((await this.around.outbox.unsavedOf(this.address)).length > 0) return;
    await store.compact(this.address, snapshot, complete, this.generation).catch(() => false);
  }

  private forgetCore(): void {
    // Who left before it was taken does not ask for it any more.
    this.held = [];
    this.around.core.DocumentBridge.Close(this.coreHandle);
  }

  /** Asks the server for all that came after what is here. What is asked for while an answer is on its way is asked for after it: that answer may not know of it. */
  catchUp(): Promise<void> {
    this.asked = true;
    this.catching ??= this.askAll().finally(() => {
      this.catching = undefined;
      if (this.asked && !this.closed) void this.catchUp();
    });
    return this.catching;
  }

  private async askAll(): Promise<void> {
    clearTimeout(this.askingAgain);
    try {
      while (this.asked && !this.closed) {
        this.asked = false;
        await this.ask();
      }
    } catch (problem) {
      this.asked = false;
      // Without a connection the document stays as the device holds it, which the outbox says; it is joined again with the next one.
      if (!(problem instanceof Unreachable)) this.askLater();
      return;
    }
    if (this.reached.complete < this.heard) this.askLater();
    else this.pause = leastPause;
  }

  private askLater(): void {
    if (this.closed) return;
    this.askingAgain = setTimeout(() => void this.catchUp(), this.pause);
    this.pause = Math.min(this.pause * 2, mostPause);
  }

  private async ask(): Promise<void> {
    const after = this.reached.complete;
    const fetched = await this.fetchAfter(after);
    if (fetched.last === 0) return;
    // Its past was closed since, or opened: what is here is not what leads on to what came.
    if (fetched.isStanding !== this.isStanding) return this.takeAnew(after > 0 ? await this.fetchAfter(0) : fetched);
    if (fetched.last <= after) return;
    if (fetched.isStanding) return this.takeAnew(fetched);
    this.once(() => this.take(after + 1, fetched.last, fetched.batch));
  }

  /** All there is to be seen of it, in place of whatever was here but what waits to be sent. */
  private async takeAnew({ last, batch, isStanding }: Fetched): Promise<void> {
    const { store, outbox, core } = this.around;
    const generation = await store.keepAnew(this.address, last, batch, isStanding).catch(() => this.generation);
    const unsaved = await outbox.unsavedOf(this.address);
    if (this.closed) return;
    this.openAnew();
    this.held = [];
    this.reached = new Reached();
    this.reached.add(1, last);
    [this.rows, this.generation, this.isStanding] = [1, generation, isStanding];
    this.tryTo(() => {
      for (const bytes of [batch, ...unsaved]) core.DocumentBridge.Apply(this.coreHandle, bytes);
    });
    this.changed();
    this.onArrived?.(batch);
  }

  private fetchAfter(after: number): Promise<Fetched> {
    return fetchAfter(this.around.store, this.space, this.kind, this.id, after);
  }

  private receive(first: number, count: number, batch: Uint8Array): void {
    const last = first + count - 1;
    const copy = batch.slice();
    this.once(() => {
      // On what stands alone it may not lead on: a thing that comes back is not among it.
      if (!this.isStanding && !this.reached.has(first, last)) this.tryTo(() => this.take(first, last, copy));
      this.hearOf(last);
    });
  }

  /** Somebody spoke of this number: all up to it must come. */
  private hearOf(sequence: number): void {
    this.heard = Math.max(this.heard, sequence);
    if (this.reached.complete < this.heard) void this.catchUp();
  }

  private take(first: number, last: number, batch: Uint8Array): void {
    this.apply(batch);
    this.reached.add(first, last);
    this.rows++;
    this.onArrived?.(batch);
    // Where there is no room it is asked for again after a reload: the store counts by what it holds.
    void this.around.store.keep(this.address, first, last, batch).catch(() => {});
  }

  private apply(batch: Uint8Array): void {
    this.beforeChange?.();
    if (this.around.core.DocumentBridge.Apply(this.handle, batch) > 0) this.changed();
  }

  /** From another tab or the live connection, where nobody could be told: what cannot be read is reported, and asked for anew. */
  private tryTo(then: () => void): void {
    try {
      then();
    } catch (problem) {
      reportFault('Something came that cannot be read.', problem, this.address);
    }
  }

  /** At once, or when what the device holds has been read; not any more once it is closed. */
  private once(then: () => void): void {
    if (this.early) this.early.push(then);
    else if (!this.closed) then();
  }

  private async readDevice(beforeTaking = () => {}, isPreparing = false): Promise<void> {
    const { store, outbox, core } = this.around;
    const unsaved = await outbox.unsavedOf(this.address);
    const { reached, batches, rows, generation, outlines, isStanding } = await store
      .load(this.address)
      .catch(() => nothingHeld());
    if (this.closed) return;
    beforeTaking();
    this.held = [...batches, ...unsaved.map((bytes) => ({ bytes }))];
    this.reached = reached;
    this.rows = rows;
    this.generation = generation;
    this.isStanding = isStanding;
    this.outlines = unsaved.length === 0 && outlines?.build === core.PageBridge.Build() ? outlines.packets : undefined;
    const early = this.early ?? [];
    this.early = undefined;
    if (!this.outlines && !isPreparing) this.settle();
    for (const then of early) then();
    if (this.reached.furthest > this.reached.complete) this.hearOf(this.reached.furthest);
  }

  /** Made here, and applied: also to what is being read at this moment. */
  private made(...batches: Uint8Array[]): void {
    for (const bytes of batches) this.early?.push(() => this.apply(bytes));
    this.changed();
  }

  /** What cannot be read does not stop what can: the server is asked for its own again, and what was made here goes where the person decides of it. */
  private async setAside(unreadable: HeldBatch[]): Promise<void> {
    const { store, outbox } = this.around;
    await outbox.setAside(unreadable.flatMap(({ waiting }) => waiting ?? []));
    if (unreadable.every(({ waiting }) => waiting)) return;
    await store.restart(this.address).catch(() => {});
    this.reached = new Reached();
    void this.catchUp();
  }

  private changed(): void {
    this.version++;
    this.outlines = undefined;
    this.tell();
  }

  private tell(): void {
    for (const listener of this.listeners) listener();
  }
}

/** Of a device whose store cannot be read: the server is asked for all. */
function nothingHeld() {
  return { reached: new Reached(), batches: [], rows: 0, generation: 0, outlines: undefined, isStanding: false };
}
