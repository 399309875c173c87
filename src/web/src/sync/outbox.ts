import { t } from '@lingui/core/macro';
import type { Core } from '../core/runtime';
import { isBusy, Refused } from '../server/api';
import type { Ahead } from './ahead';
import type { DeviceStore, RefusedWork, StoredOperation, Waiting } from './deviceStore';
import { newReplica, type Replaced, Sender } from './sender';
import { setSyncState } from './syncState';
import type { Tabs } from './tabs';

const leastPause = 500;
const mostPause = 10_000;

/** An operation that the server has stored, and its number there. */
export interface Acknowledged {
  sequence: number;
  bytes: Uint8Array;
}

/** Keeps what was made here until the server has it, and keeps trying. One tab of a browser sends at a time. */
export class Outbox {
  /** Operations of a document were made in another tab. */
  onMade: (document: string, bytes: Uint8Array) => void = () => {};
  /** The server has stored operations of a document that were made on this device. */
  onStored: (document: string, operations: Acknowledged[]) => void = () => {};
  /** What waits of these documents is no longer what was applied: they must be read again. */
  onAnew: (documents: Set<string>) => void = () => {};
  /** The person left this device in another tab. */
  onLeft: () => void = () => {};

  /** Made, and not in the device's store: on the way there, or for want of room. It is sent from here. */
  private unsaved: Waiting[] = [];
  /** Of those, how to say that what was written ahead of them is kept. */
  private readonly kept = new Map<Waiting, () => void>();
  /** With the server, but still in the store's outbox, for want of room to note it. */
  private readonly sent = new Set<number>();
  /** How many operations were made in this tab. */
  private made = 0;
  private running = false;
  private again = false;
  private pause = leastPause;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private counting: ReturnType<typeof setTimeout> | undefined;
  private saving: Promise<void> = Promise.resolve();
  private waitingForSettling: { resolve: () => void; reject: (problem: unknown) => void }[] = [];
  private readonly ended = new AbortController();
  private readonly sender: Sender;

  constructor(
    private readonly core: Core,
    private readonly store: DeviceStore,
    private readonly tabs: Tabs,
    private readonly person: string,
    private readonly ahead: Ahead,
  ) {
    this.sender = new Sender(core, {
      waiting: () => this.waiting(),
      stored: (document, stored) => this.stored(document, stored),
      refused: (refused) => this.refused(refused),
      replaced: (rows) => this.replaced(rows),
      renumbered: (old) => this.tabs.tell({ what: 'renumbered', old }),
      clockCorrected: (offset) => this.tabs.tell({ what: 'clock', offset }),
      nearlyFull: (document) => setSyncState({ nearlyFull: document }),
    });
    const { signal } = this.ended;
    addEventListener('online', () => this.flush(), { signal });
    addEventListener('offline', () => setSyncState({ problem: 'unreachable' }), { signal });
    addEventListener('beforeunload', (event) => this.unsaved.length > 0 && event.preventDefault(), { signal });
    tabs.onMessage = (message) => {
      switch (message.what) {
        case 'made':
          for (const { document, bytes } of message.operations) this.onMade(document, bytes);
          break;
        case 'stored':
          this.onStored(message.document, message.operations);
          break;
        case 'anew':
          this.onAnew(new Set(message.documents));
          break;
        case 'renumbered':
          this.core.DocumentBridge.Renew(message.old, newReplica());
          break;
        case 'clock':
          this.core.DocumentBridge.CorrectClock(Date.now() + message.offset, Date.now());
          break;
        case 'left':
          return this.onLeft();
      }
      this.countSoon();
    };
  }

  /** Puts operations where they wait to be sent; those given at once are kept all or not at all. Resolves when they are on the device, or could not be. */
  add(...made: Waiting[]): Promise<void> {
    const isKept = this.ahead.operations(made);
    for (const row of made) this.kept.set(row, isKept);
    this.unsaved.push(...made);
    this.made += made.length;
    expose({ made: this.made });
    return this.save().then(() => {
      this.flush();
      this.countSoon();
    });
  }

  /** Many operations in a row, as when a notebook is made, are counted once. */
  private countSoon(): void {
    this.counting ??= setTimeout(() => {
      this.counting = undefined;
      void this.count();
    }, 0);
  }

  /** Puts into the store what is only in memory; where there is no room it stays there, is tried again, and leaving the page asks first. */
  private save(): Promise<void> {
    this.saving = this.saving.then(async () => {
      const rows = [...this.unsaved];
      if (rows.length === 0) return;
      try {
        await this.store.addToOutbox(rows);
      } catch {
        return setSyncState({ onlyInMemory: this.unsaved.length });
      }
      this.noLongerUnsaved(new Set(rows));
      this.tabs.tell({ what: 'made', operations: rows.map(({ document, bytes }) => ({ document, bytes })) });
    });
    return this.saving;
  }

  /** Resolves when all that can be is in the device's store. */
  saved(): Promise<void> {
    return this.save();
  }

  /** Sends no more, since somebody else signs in here. What waits stays on the device. */
  stop(): void {
    this.ended.abort();
    clearTimeout(this.timer);
    clearTimeout(this.counting);
    this.tabs.stop();
    this.ahead.stop();
  }

  /** Tries to send now, and again later when it does not work. */
  flush(): void {
    clearTimeout(this.timer);
    if (this.ended.signal.aborted) return;
    if (this.running) {
      this.again = true;
      return;
    }
    this.running = true;
    void navigator.locks
      .request(`quill-outbox-${this.person}`, async () => {
        await this.save();
        await this.sender.pass(this.ended.signal);
      })
      .then(
        () => this.passed(),
        (problem: unknown) => this.failed(problem),
      )
      .finally(async () => {
        this.running = false;
        if (this.ended.signal.aborted) return;
        await this.count();
        this.tabs.tell({ what: 'counted' });
        if (this.again) {
          this.again = false;
          this.flush();
        }
      });
  }

  /** What was made of a document and is not in the device's store; waits for what is on its way there. */
  async unsavedOf(document: string): Promise<Uint8Array[]> {
    await this.saving;
    return this.unsaved.filter((waiting) => waiting.document === document).map((waiting) => waiting.bytes);
  }

  /** Resolves when nothing waits any more; throws when something cannot be sent. */
  async settled(): Promise<void> {
    await this.saving;
    if ((await this.waiting()).length === 0) return;
    this.flush();
    await new Promise<void>((resolve, reject) => this.waitingForSettling.push({ resolve, reject }));
  }

  /** All that waits, oldest first. */
  async waiting(): Promise<Waiting[]> {
    const kept = await this.store.outbox().catch(() => []);
    return [...kept.filter((row) => !this.sent.has(row.n!)), ...this.unsaved];
  }

  /** What this device cannot read any more goes where the person decides of it. */
  async setAside(rows: Waiting[]): Promise<void> {
    if (rows.length === 0) return;
    await this.store.markRefused(rows.map((waiting) => ({ waiting, sentence: t`This device cannot read it.` })));
    await this.count();
  }

  /** What the server did not take, and waits for the person's decision. */
  refusedWork(): Promise<RefusedWork[]> {
    return this.store.refused();
  }

  async dropRefused(rows: readonly RefusedWork[]): Promise<void> {
    await this.store.dropRefused(rows);
    await this.count();
    this.tabs.tell({ what: 'counted' });
  }

  /** Sends again what was refused; what is on the device of its documents holds it again. */
  async putBack(rows: readonly RefusedWork[]): Promise<void> {
    await this.store.putBack(rows);
    this.anew(new Set(rows.map((row) => row.document)));
    this.flush();
    await this.count();
  }

  async count(): Promise<void> {
    const { made } = this;
    try {
      const [rows, refused] = await Promise.all([this.waiting(), this.store.refused()]);
      if (this.ended.signal.aborted) return;
      setSyncState({
        waiting: rows.length,
        documents: new Set(rows.map((row) => row.document)).size,
        refused: [...new Set(refused.map((row) => row.sentence))],
        troubles: this.sender.troubles,
      });
      // Once nothing waits, all that was made until it was looked is settled.
      if (rows.length === 0) expose({ settled: made });
    } catch {
      // The store is closed, which is said elsewhere.
    }
  }

  private passed(): void {
    this.pause = leastPause;
    setSyncState({ problem: 'none' });
    const { troubles, due } = this.sender;
    if (due !== undefined) this.timer = setTimeout(() => this.flush(), due);
    for (const { resolve, reject } of this.waitingForSettling.splice(0))
      if (troubles.length > 0) reject(new Error(troubles[0]!.sentence));
      else resolve();
  }

  private failed(problem: unknown): void {
    for (const { reject } of this.waitingForSettling.splice(0)) reject(problem);
    if (this.ended.signal.aborted) return;
    const signedOut = problem instanceof Refused && problem.status === 401;
    const busy = problem instanceof Refused && isBusy(problem.status);
    setSyncState({ problem: signedOut ? 'signed-out' : busy ? 'busy' : 'unreachable' });
    if (signedOut) return;
    if (busy) this.pause = Math.max(this.pause, problem.retryAfter);
    this.timer = setTimeout(() => this.flush(), this.pause);
    this.pause = Math.min(this.pause * 2, mostPause);
  }

  private async stored(document: string, stored: StoredOperation[]): Promise<void> {
    try {
      await this.store.markStored(document, stored);
    } catch {
      // They stay where they are, so that they are here after a reload without a connection; they are not sent again and again.
      for (const { waiting } of stored) if (waiting.n !== undefined) this.sent.add(waiting.n);
    }
    this.noLongerUnsaved(new Set(stored.map(({ waiting }) => waiting)));
    const operations = stored
      .map(({ waiting, sequence }) => ({ sequence, bytes: waiting.bytes }))
      .sort((a, b) => a.sequence - b.sequence);
    this.onStored(document, operations);
    this.tabs.tell({ what: 'stored', document, operations });
  }

  private async refused(refused: { waiting: Waiting; sentence: string }[]): Promise<void> {
    await this.store.markRefused(refused);
    this.noLongerUnsaved(new Set(refused.map(({ waiting }) => waiting)));
    this.anew(new Set(refused.map(({ waiting }) => waiting.document)));
  }

  private async replaced(rows: Replaced[]): Promise<void> {
    await this.store.replaceWaiting(rows.map(({ before, bytes }) => ({ ...before, bytes })));
    const fresh = new Map(rows.map(({ before, bytes }) => [before, { ...before, bytes }]));
    this.unsaved = this.unsaved.map((row) => {
      const other = fresh.get(row);
      if (!other) return row;
      this.kept.set(other, this.ahead.operations([other]));
      this.kept.get(row)?.();
      this.kept.delete(row);
      return other;
    });
    this.anew(new Set(rows.map(({ before }) => before.document)));
  }

  private noLongerUnsaved(rows: ReadonlySet<Waiting>): void {
    this.unsaved = this.unsaved.filter((row) => !rows.has(row));
    setSyncState({ onlyInMemory: this.unsaved.length });
    const isKept = new Set<() => void>();
    for (const row of rows) {
      if (this.kept.has(row)) isKept.add(this.kept.get(row)!);
      this.kept.delete(row);
    }
    // What was written together is kept together, or waits in memory together.
    const waiting = new Set(this.kept.values());
    for (const say of isKept) if (!waiting.has(say)) say();
  }

  private anew(documents: Set<string>): void {
    if (documents.size === 0) return;
    this.onAnew(documents);
    this.tabs.tell({ what: 'anew', documents: [...documents] });
  }
}

/** On the document's root, for who must know whether all that was made is saved, and not only that it was so a moment ago. */
function expose(numbers: { made?: number; settled?: number }): void {
  for (const [name, number] of Object.entries(numbers)) document.documentElement.dataset[name] = String(number);
}
