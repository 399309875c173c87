import { type Core, type DocumentKind, documentKinds } from '../core/runtime';
import { request } from '../session/api';
import { addressOf } from './address';
import { unframed } from './frames';
import type { DeviceStore } from './deviceStore';
import type { Live, LiveListener } from './live';
import type { Outbox } from './outbox';

const rowsBeforeCompacting = 200;

/** A document that is shown: held by Core, kept on the device, followed live. */
export class OpenDocument {
  /** Set by who shows a page. */
  onWet?: LiveListener['wet'];
  onPen?: LiveListener['pen'];
  onPresent?: LiveListener['present'];
  /** Somebody's operations were stored: the batch as it came. */
  onArrived?: (batch: Uint8Array) => void;

  /** How the page was painted when it was open last; only while it is the same still. */
  outlines: Uint8Array[] | undefined;

  readonly address: string;

  private coreHandle: number;
  /** What the device holds of a page whose outlines can be painted first; Core takes it when it is first asked for the page. */
  private held: Uint8Array[] = [];
  private readonly whenSettled: (() => void)[] = [];
  private sequence = 0;
  private rows = 0;
  private version = 0;
  private catching: Promise<void> | undefined;
  private readonly listeners = new Set<() => void>();

  private constructor(
    private readonly core: Core,
    private readonly store: DeviceStore,
    private readonly outbox: Outbox,
    private readonly live: Live,
    readonly space: string,
    readonly kind: DocumentKind,
    readonly id: string,
  ) {
    this.coreHandle = core.DocumentBridge.Open(documentKinds[kind]);
    this.address = addressOf(space, kind, id);
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

  /** Lets Core take what is held. */
  settle(): void {
    if (!this.isHeld) return;
    for (const batch of this.held.splice(0)) this.core.DocumentBridge.Apply(this.coreHandle, batch);
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

  /** Opens what the device holds at once; what the server has more follows. Waits for the server only when the device holds nothing. */
  static async open(
    core: Core,
    store: DeviceStore,
    outbox: Outbox,
    live: Live,
    space: string,
    kind: DocumentKind,
    id: string,
    isNew: boolean,
  ): Promise<OpenDocument> {
    const document = new OpenDocument(core, store, outbox, live, space, kind, id);
    await document.readDevice();
    if (document.sequence === 0 && !isNew) await document.catchUp();
    live.join(document.address, {
      stored: (first, count, batch) => document.receive(first, count, batch),
      wet: (...piece) => document.onWet?.(...piece),
      pen: (...place) => document.onPen?.(...place),
      present: (people) => document.onPresent?.(people),
      joined: () => void document.catchUp(),
    });
    void document.catchUp();
    return document;
  }

  /** Changes with every change of the document; for `useSyncExternalStore`. */
  readonly getVersion = (): number => this.version;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Makes an operation through Core, which applies it at once, and puts it into the outbox. False when there was nothing to do. */
  perform(make: (handle: number, now: number) => Uint8Array): boolean {
    const bytes = make(this.handle, Date.now());
    if (bytes.length === 0) return false;
    this.changed();
    void this.outbox.add({ space: this.space, kind: this.kind, document: this.address, bytes });
    return true;
  }

  /** The same for many operations at once, each framed by a length of four bytes; one notice to who listens. Resolves once all are kept on the device. */
  async performAll(make: (handle: number, now: number) => Uint8Array): Promise<number> {
    const frames = unframed(make(this.handle, Date.now()));
    if (frames.length > 0) this.changed();
    await Promise.all(
      frames.map((frame) =>
        this.outbox.add({ space: this.space, kind: this.kind, document: this.address, bytes: frame }),
      ),
    );
    return frames.length;
  }

  /** Keeps how the page is painted for the next opening; false when something of it is still on its way. */
  keepOutlines(packets: Uint8Array[]): Promise<boolean> {
    return this.store.keepOutlines({
      id: this.address,
      sequence: this.sequence,
      build: this.core.PageBridge.Build(),
      packets,
    });
  }

  /** The server has stored some of this device's own operations. */
  acknowledge(sequences: number[]): void {
    this.rows += sequences.length;
    const before = this.sequence;
    for (const sequence of sequences) if (sequence === this.sequence + 1) this.sequence = sequence;
    if (this.sequence > before) void this.store.advance(this.address, this.sequence);
    if ((sequences.at(-1) ?? 0) > this.sequence) void this.catchUp();
  }

  /** Reads the device's store afresh, after what waits there was stamped anew. */
  async reload(): Promise<void> {
    this.core.DocumentBridge.Close(this.coreHandle);
    this.coreHandle = this.core.DocumentBridge.Open(documentKinds[this.kind]);
    this.held = [];
    await this.readDevice();
    this.settle();
    this.changed();
  }

  close(): void {
    this.live.leave(this.address);
    if (this.rows > rowsBeforeCompacting && !this.isHeld)
      void this.store.compact(this.address, this.core.DocumentBridge.Snapshot(this.coreHandle), this.sequence);
    // Who left before it was taken does not ask for it any more.
    this.held = [];
    this.core.DocumentBridge.Close(this.coreHandle);
    this.listeners.clear();
  }

  /** Asks the server for all that came after what is here; at most one request at a time. */
  catchUp(): Promise<void> {
    this.catching ??= this.fetchLater().finally(() => (this.catching = undefined));
    return this.catching;
  }

  private async fetchLater(): Promise<void> {
    try {
      const response = await request(
        'GET',
        `/api/spaces/${this.space}/documents/${this.kind}/${this.id}/operations?after=${this.sequence}`,
      );
      const last = Number(response.headers.get('X-Quill-Sequence'));
      if (last <= this.sequence) return;
      await this.take(this.sequence + 1, last, new Uint8Array(await response.arrayBuffer()));
    } catch {
      // Without a connection the document stays as the device holds it; the outbox says so.
    }
  }

  private receive(first: number, count: number, batch: Uint8Array): void {
    if (first > this.sequence + 1) void this.catchUp();
    else if (first + count - 1 > this.sequence) void this.take(first, first + count - 1, batch.slice());
  }

  private async take(first: number, last: number, batch: Uint8Array): Promise<void> {
    const news = this.core.DocumentBridge.Apply(this.handle, batch);
    this.sequence = Math.max(this.sequence, last);
    this.rows++;
    if (news > 0) this.changed();
    this.onArrived?.(batch);
    await this.store.keep(this.address, first, batch, last);
  }

  private async readDevice(): Promise<void> {
    const unsaved = await this.outbox.unsavedOf(this.address);
    const { sequence, batches, rows, outlines } = await this.store.load(this.address);
    this.held = [...batches, ...unsaved];
    this.sequence = sequence;
    this.rows = rows;
    this.outlines =
      unsaved.length === 0 && outlines?.build === this.core.PageBridge.Build() ? outlines.packets : undefined;
    if (!this.outlines) this.settle();
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
