import type { IDBPDatabase, IDBPObjectStore } from 'idb';
import { addressOf, idOf } from './address';
import { DeviceAssets } from './deviceAssets';
import {
  type DeviceSchema,
  type KeptBatch,
  type KeptDocument,
  type KeptOutlines,
  openDevice,
  type RefusedWork,
  type StoreEvents,
  type Waiting,
} from './deviceSchema';
import { Reached, type Run } from './reached';

/** How often a transaction that nothing can begin without is begun. */
const mostTries = 5;

export type { KeptAsset, RefusedWork, Waiting } from './deviceSchema';

/** A batch of operations as it lies on the device. */
export interface HeldBatch {
  bytes: Uint8Array;
  /** Where it is an operation that waits to be sent. */
  waiting?: Waiting;
}

/** What the device holds of a document. */
export interface Held {
  /** Which of the server's operations are among it. */
  reached: Reached;
  /** What to apply, in this order; what waits in the outbox is the last of it. */
  batches: HeldBatch[];
  /** How many batches of the server's these are. */
  rows: number;
  /** To be given back to {@link DeviceStore.compact}. */
  generation: number;
  outlines: KeptOutlines | undefined;
  /** See {@link KeptDocument.isStanding}. */
  isStanding: boolean;
}

/** An operation of this device that the server has stored, and its number there. */
export interface StoredOperation {
  waiting: Waiting;
  sequence: number;
}

/**
 * What this device holds for one person: documents, the outbox, and last answers for lists. Several tabs share it. Each step is one transaction over all
 * that it touches, and looks at what is there before it changes it; how far a document is complete is counted from the batches that are there, never taken
 * from what a tab believes.
 */
export class DeviceStore {
  readonly assets: DeviceAssets;

  private constructor(private readonly database: IDBPDatabase<DeviceSchema>) {
    this.assets = new DeviceAssets(database);
  }

  static async open(person: string, events: StoreEvents): Promise<DeviceStore> {
    return new DeviceStore(await openDevice(person, events));
  }

  close(): void {
    this.database.close();
  }

  /** Everything kept of a document that is opened now: from here on it is kept again, if it was forgotten. */
  async load(address: string): Promise<Held> {
    await this.adopt(address);
    const kept = await this.database.get('documents', address);
    if (kept?.forgotten) await anyway(() => this.database.delete('documents', address));
    return this.peek(address);
  }

  /** The same without opening it. */
  async peek(address: string): Promise<Held> {
    const transaction = this.database.transaction(['documents', 'operations', 'outbox', 'outlines']);
    const [kept, later, waiting, outlines] = await Promise.all([
      transaction.objectStore('documents').get(address),
      transaction.objectStore('operations').getAll(rangeOf(address)),
      transaction.objectStore('outbox').index('document').getAll(address),
      transaction.objectStore('outlines').get(address),
    ]);
    const sequence = kept?.sequence ?? 0;
    const reached = new Reached(
      sequence,
      later.flatMap((row): Run[] => (row.last === undefined ? [] : [[row.sequence, row.last]])),
    );
    const isWhole = waiting.length === 0 && reached.furthest === sequence;
    return {
      reached,
      batches: [
        ...(kept?.snapshot ? [{ bytes: kept.snapshot }] : []),
        ...later.map(({ bytes }) => ({ bytes })),
        ...waiting.map((row) => ({ bytes: row.bytes, waiting: row })),
      ],
      rows: later.length,
      generation: kept?.generation ?? 0,
      isStanding: kept?.isStanding ?? false,
      outlines: isWhole && outlines?.sequence === sequence ? outlines : undefined,
    };
  }

  /** The same of one that is to be fetched: what comes is kept as long as it is expected. */
  async expect(address: string): Promise<Held> {
    await this.adopt(address);
    const transaction = this.database.transaction('documents', 'readwrite');
    const kept = await transaction.store.get(address);
    if (!kept || kept.forgotten) {
      const generation = kept?.generation;
      void transaction.store.put({ id: address, sequence: 0, ...(generation !== undefined && { generation }) });
    }
    await transaction.done;
    return this.peek(address);
  }

  /** Up to which number each of these documents is here; -1 where nothing is known of it. */
  async reachOf(addresses: readonly string[]): Promise<number[]> {
    const { store } = this.database.transaction('documents');
    const kept = await Promise.all(addresses.map((address) => store.get(address)));
    return kept.map((one) => (one && !one.forgotten && (one.fromStart || one.sequence > 0) ? one.sequence : -1));
  }

  /** Takes over what an earlier version kept under the id alone, which was one document's then. */
  private async adopt(address: string): Promise<void> {
    const id = idOf(address);
    if (
      (await this.database.getKey('documents', id)) === undefined &&
      (await this.database.getKeyFromIndex('outbox', 'document', id)) === undefined
    )
      return;
    const transaction = this.database.transaction(['documents', 'operations', 'outbox', 'outlines'], 'readwrite');
    const [documents, operations, outbox] = [
      transaction.objectStore('documents'),
      transaction.objectStore('operations'),
      transaction.objectStore('outbox'),
    ];
    const [kept, isHere, later, waiting] = await Promise.all([
      documents.get(id),
      documents.getKey(address),
      operations.getAll(rangeOf(id)),
      outbox.index('document').getAll(id),
    ]);
    if (kept && isHere === undefined) {
      void documents.put({ ...kept, id: address });
      for (const row of later) void operations.put({ ...row, document: address });
    }
    for (const row of waiting)
      if (addressOf(row.space, row.kind, id) === address) void outbox.put({ ...row, document: address });
    void documents.delete(id);
    void operations.delete(rangeOf(id));
    void transaction.objectStore('outlines').delete(id);
    await transaction.done;
  }

  /** Keeps how a page was painted, unless it has changed since or something of it still waits to be sent: false then. */
  async keepOutlines(outlines: KeptOutlines): Promise<boolean> {
    const { id, sequence } = outlines;
    const transaction = this.database.transaction(['documents', 'outbox', 'outlines'], 'readwrite');
    const [kept, waiting] = await Promise.all([
      transaction.objectStore('documents').get(id),
      transaction.objectStore('outbox').index('document').count(id),
    ]);
    if (kept?.forgotten) return true;
    const isGood = kept?.sequence === sequence && waiting === 0;
    if (isGood) await transaction.objectStore('outlines').put(outlines);
    await transaction.done;
    return isGood;
  }

  /**
   * Keeps a batch of the server's operations that begins and ends at these numbers, and counts how far the document is complete with it.
   * @param ifExpected Only where it was not taken off the device since it was asked for.
   */
  async keep(address: string, first: number, last: number, bytes: Uint8Array, ifExpected = false): Promise<void> {
    const transaction = this.database.transaction(['documents', 'operations'], 'readwrite');
    const documents = transaction.objectStore('documents');
    const there = await documents.get(address);
    const kept = there ?? { id: address, sequence: 0 };
    if (kept.forgotten || (ifExpected && !there)) return transaction.done;
    const operations = transaction.objectStore('operations');
    if (last > kept.sequence) {
      await put(operations, { document: address, sequence: first, last, bytes });
      const sequence = await completeWith(operations, address, kept.sequence, [[first, last]]);
      await documents.put({ ...kept, sequence });
    }
    return transaction.done;
  }

  /** Keeps what the server says that there is of a document in place of all that was here of it but what waits, and says which reading of it this is. */
  async keepAnew(
    address: string,
    last: number,
    bytes: Uint8Array,
    isStanding: boolean,
    ifExpected = false,
  ): Promise<number> {
    const transaction = this.database.transaction(['documents', 'operations', 'outlines'], 'readwrite');
    const kept = await transaction.objectStore('documents').get(address);
    const generation = (kept?.generation ?? 0) + 1;
    if (!kept?.forgotten && (kept || !ifExpected)) {
      const anew: KeptDocument = { ...kept, id: address, sequence: last, generation, isStanding };
      delete anew.snapshot;
      void transaction.objectStore('documents').put(anew);
      void transaction.objectStore('operations').delete(rangeOf(address));
      void transaction.objectStore('outlines').delete(address);
      void put(transaction.objectStore('operations'), { document: address, sequence: 1, last, bytes });
    }
    await transaction.done;
    return generation;
  }

  /**
   * Puts one snapshot in place of all batches up to the number that it goes to. Later ones, which another tab may have kept, stay. Nothing is done when
   * something of the document waits to be sent or was refused, or was taken back since the snapshot's document was read: the snapshot may hold it.
   */
  async compact(address: string, snapshot: Uint8Array, complete: number, generation: number): Promise<boolean> {
    const transaction = this.database.transaction(['documents', 'operations', 'outbox', 'refused'], 'readwrite');
    const documents = transaction.objectStore('documents');
    const [kept, waiting, refused] = await Promise.all([
      documents.get(address),
      transaction.objectStore('outbox').index('document').count(address),
      transaction.objectStore('refused').getAll(),
    ]);
    const isGood =
      kept !== undefined &&
      !kept.forgotten &&
      (kept.generation ?? 0) === generation &&
      waiting === 0 &&
      refused.every((row) => row.document !== address);
    if (isGood) {
      const operations = transaction.objectStore('operations');
      const before = await operations.getAll(rangeOf(address, 0, complete));
      for (const row of before) if (lastOf(row) <= complete) void operations.delete([address, row.sequence]);
      const over = before.filter((row) => lastOf(row) > complete).map((row): Run => [row.sequence, lastOf(row)]);
      const sequence = await completeWith(operations, address, Math.max(kept.sequence, complete), over);
      void documents.put({ ...kept, sequence, snapshot });
    }
    await transaction.done;
    return isGood;
  }

  /** Notes that nobody has written in some documents yet, so that all of them is here; not of one that something was taken away of. */
  async keepEmpty(...addresses: string[]): Promise<void> {
    const transaction = this.database.transaction('documents', 'readwrite');
    for (const address of addresses) {
      const kept = (await transaction.store.get(address)) ?? { id: address, sequence: 0 };
      if (!kept.forgotten && !kept.generation && kept.sequence === 0)
        void transaction.store.put({ ...kept, fromStart: true });
    }
    await transaction.done;
  }

  /** Whether all of a document is on this device, as far as it was told of it. */
  async isWhole(address: string): Promise<boolean> {
    if ((await this.reachOf([address]))[0]! < 0) return false;
    const { reached } = await this.peek(address);
    return reached.furthest === reached.complete;
  }

  /** When each page was written on last from this device, by the page's address; UTC ms. */
  async writtenHere(written: (bytes: Uint8Array) => number): Promise<Map<string, number>> {
    const [kept, waiting] = await Promise.all([this.database.getAll('documents'), this.outbox()]);
    const times = new Map<string, number>();
    for (const { id, writtenAt } of kept) if (writtenAt && id.includes('/page/')) times.set(id, writtenAt);
    for (const { document, kind, bytes } of waiting)
      if (kind === 'page') times.set(document, Math.max(times.get(document) ?? 0, written(bytes)));
    return times;
  }

  /** The addresses of the documents of which something is on this device; ids alone in what an earlier version left. */
  async heldDocuments(): Promise<Set<string>> {
    const [kept, waiting] = await Promise.all([this.database.getAll('documents'), this.outbox()]);
    return new Set([
      ...kept.filter((document) => !document.forgotten).map((document) => document.id),
      ...waiting.map((row) => row.document),
    ]);
  }

  /** Takes all of a space off this device, and the last answers for lists, some of which speak of it. What waits to be sent or was refused stays until it is decided of. */
  async forgetSpace(space: string): Promise<void> {
    const transaction = this.database.transaction(
      ['documents', 'operations', 'outlines', 'answers', 'assets'],
      'readwrite',
    );
    const all = IDBKeyRange.bound(`${space}/`, `${space}0`, false, true);
    void transaction.objectStore('documents').delete(all);
    void transaction.objectStore('outlines').delete(all);
    void transaction.objectStore('operations').delete(IDBKeyRange.bound([`${space}/`], [`${space}0`], false, true));
    void transaction.objectStore('answers').clear();
    const assets = transaction.objectStore('assets');
    const held = IDBKeyRange.bound([space], [space, []]);
    for (let cursor = await assets.openCursor(held); cursor; cursor = await cursor.continue())
      if (!cursor.value.waiting && !cursor.value.refused) void cursor.delete();
    await transaction.done;
  }

  /** The pages of a space of which something is here. */
  async pagesOf(space: string): Promise<string[]> {
    const keys = await this.database.getAllKeys('documents', IDBKeyRange.bound(`${space}/page/`, `${space}/page0`));
    return keys.map((address) => address.slice(`${space}/page/`.length));
  }

  /** Takes documents off this device. What of them still waits to be sent stays in the outbox until it is. */
  async forget(addresses: string[]): Promise<void> {
    const transaction = this.database.transaction(['documents', 'operations', 'outlines'], 'readwrite');
    for (const id of addresses) {
      const generation = ((await transaction.objectStore('documents').get(id))?.generation ?? 0) + 1;
      void transaction.objectStore('documents').put({ id, sequence: 0, generation, forgotten: true });
      void transaction.objectStore('operations').delete(rangeOf(id));
      void transaction.objectStore('outlines').delete(id);
    }
    await transaction.done;
  }

  /** Forgets what the server has told of a document, since it cannot be read here: it is asked for from the beginning. */
  async restart(address: string): Promise<void> {
    const transaction = this.database.transaction(['documents', 'operations', 'outlines'], 'readwrite');
    const generation = ((await transaction.objectStore('documents').get(address))?.generation ?? 0) + 1;
    void transaction.objectStore('documents').put({ id: address, sequence: 0, generation });
    void transaction.objectStore('operations').delete(rangeOf(address));
    void transaction.objectStore('outlines').delete(address);
    await transaction.done;
  }

  /**
   * Takes pages off the device that the server has, and how pages were painted: by far the most of what is here. Libraries and notebooks stay, without which
   * nothing could be found; so does what waits or was refused, with what is here of its page.
   * @param but Pages that are to stay.
   */
  async freeUp(but: ReadonlySet<string> = new Set()): Promise<void> {
    const transaction = this.database.transaction(
      ['documents', 'operations', 'outlines', 'outbox', 'refused'],
      'readwrite',
    );
    const [documents, waiting, refused] = await Promise.all([
      transaction.objectStore('documents').getAll(),
      transaction.objectStore('outbox').getAll(),
      transaction.objectStore('refused').getAll(),
    ]);
    void transaction.objectStore('outlines').clear();
    const needed = new Set([...waiting, ...refused].map((row) => row.document));
    for (const { id, generation, writtenAt } of documents) {
      if (needed.has(id) || but.has(id) || !id.includes('/page/')) continue;
      const left = { id, sequence: 0, generation: (generation ?? 0) + 1, ...(writtenAt && { writtenAt }) };
      void transaction.objectStore('documents').put(left);
      void transaction.objectStore('operations').delete(rangeOf(id));
    }
    await transaction.done;
  }

  /** Takes everything off the device but what waits to be sent and what was refused. */
  async keepUnsentOnly(): Promise<void> {
    const transaction = this.database.transaction(
      ['documents', 'operations', 'outlines', 'answers', 'assets'],
      'readwrite',
    );
    for (const store of ['documents', 'operations', 'outlines', 'answers'] as const)
      void transaction.objectStore(store).clear();
    const assets = transaction.objectStore('assets');
    for (let cursor = await assets.openCursor(); cursor; cursor = await cursor.continue())
      if (!cursor.value.waiting && !cursor.value.refused) void cursor.delete();
    await transaction.done;
  }

  /** Puts operations into the outbox in the order given, all of them or none. */
  async addToOutbox(waiting: readonly Waiting[]): Promise<void> {
    const transaction = this.database.transaction('outbox', 'readwrite');
    await Promise.all([...waiting.map((row) => transaction.store.add(row)), transaction.done]);
  }

  async outbox(): Promise<Waiting[]> {
    return (await this.database.getAll('outbox')).map(named);
  }

  /** Moves operations of one document from the outbox to the stored ones, and counts how far the document is complete with them. */
  async markStored(address: string, stored: readonly StoredOperation[]): Promise<void> {
    if (stored.length === 0) return;
    const transaction = this.database.transaction(['documents', 'operations', 'outbox'], 'readwrite');
    const documents = transaction.objectStore('documents');
    const operations = transaction.objectStore('operations');
    for (const { waiting } of stored)
      if (waiting.n !== undefined) void transaction.objectStore('outbox').delete(waiting.n);
    const kept = (await documents.get(address)) ?? { id: address, sequence: 0 };
    if (!kept.forgotten) {
      for (const { waiting, sequence } of stored)
        if (sequence > kept.sequence)
          await put(operations, { document: address, sequence, last: sequence, bytes: waiting.bytes });
      const runs = stored.map(({ sequence }): Run => [sequence, sequence]);
      await documents.put({
        ...kept,
        sequence: await completeWith(operations, address, kept.sequence, runs),
        writtenAt: Date.now(),
      });
    }
    await transaction.done;
  }

  /** Moves operations from the outbox to the refused ones. */
  async markRefused(refused: readonly { waiting: Waiting; sentence: string }[]): Promise<void> {
    const transaction = this.database.transaction(['documents', 'refused', 'outbox'], 'readwrite');
    for (const { waiting, sentence } of refused) {
      const row = { ...waiting, sentence, at: Date.now() };
      // What was in memory alone has no place yet: the outbox gives it one.
      row.n ??= await transaction.objectStore('outbox').add(waiting);
      void transaction.objectStore('refused').put(row);
      void transaction.objectStore('outbox').delete(row.n);
    }
    await nextGeneration(transaction.objectStore('documents'), new Set(refused.map(({ waiting }) => waiting.document)));
    await transaction.done;
  }

  async refused(): Promise<RefusedWork[]> {
    return (await this.database.getAll('refused')).map(named);
  }

  /** Lets refused operations go for good. */
  async dropRefused(rows: readonly RefusedWork[]): Promise<void> {
    const transaction = this.database.transaction('refused', 'readwrite');
    for (const row of rows) void transaction.store.delete(row.n!);
    await transaction.done;
  }

  /** Puts refused operations back among those that wait, behind all others, as they are given here. */
  async putBack(rows: readonly RefusedWork[]): Promise<void> {
    const transaction = this.database.transaction(['refused', 'outbox'], 'readwrite');
    for (const { n, sentence: _, at: __, ...waiting } of rows) {
      void transaction.objectStore('refused').delete(n!);
      void transaction.objectStore('outbox').add(waiting);
    }
    await transaction.done;
  }

  /** Puts other operations in the place of some that wait; of those that went in the meantime nothing is put back. */
  async replaceWaiting(rows: readonly Waiting[]): Promise<void> {
    const transaction = this.database.transaction(['documents', 'outbox'], 'readwrite');
    const outbox = transaction.objectStore('outbox');
    for (const row of rows) if (row.n !== undefined && (await outbox.getKey(row.n)) !== undefined) void outbox.put(row);
    await nextGeneration(transaction.objectStore('documents'), new Set(rows.map((row) => row.document)));
    await transaction.done;
  }

  async keepAnswer(path: string, answer: unknown): Promise<void> {
    await this.database.put('answers', answer, path);
  }

  async forgetAnswer(path: string): Promise<void> {
    await this.database.delete('answers', path);
  }

  answer(path: string): Promise<unknown> {
    return this.database.get('answers', path);
  }
}

/** Puts into the outbox what was written ahead of it, but for what is there already. */
export async function takeOver(store: DeviceStore, operations: readonly Waiting[]): Promise<void> {
  if (operations.length === 0) return;
  const isSame = (a: Waiting, b: Waiting) =>
    a.document === b.document && a.bytes.length === b.bytes.length && a.bytes.every((byte, i) => byte === b.bytes[i]);
  const waiting = await store.outbox();
  const left = operations.filter((row) => !waiting.some((other) => isSame(row, other)));
  await anyway(() => store.addToOutbox(left));
}

/** What nothing can begin without: a transaction that the browser gives up, as it may when it is under strain, is begun anew a few times before that is told. */
async function anyway<T>(transact: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++)
    try {
      return await transact();
    } catch (problem) {
      if (tries === mostTries || !(problem instanceof DOMException) || problem.name !== 'AbortError') throw problem;
    }
}

type Stores = ('documents' | 'operations' | 'outbox' | 'outlines' | 'refused' | 'answers')[];
type Operations = IDBPObjectStore<DeviceSchema, Stores, 'operations', 'readwrite'>;
type Documents = IDBPObjectStore<DeviceSchema, Stores, 'documents', 'readwrite'>;

/** Keeps a batch, unless a longer one that begins alike is there, and takes away those that it holds itself. */
async function put(operations: Operations, row: KeptBatch & { last: number }): Promise<void> {
  const { document, sequence, last } = row;
  const there = await operations.getAll(rangeOf(document, sequence, last));
  if (there.some((other) => other.sequence === sequence && lastOf(other) > last)) return;
  for (const other of there) if (lastOf(other) <= last) void operations.delete([document, other.sequence]);
  await operations.put(row);
}

/** How far a document that was complete to a number is so with these runs, and with the batches that begin after that number. */
async function completeWith(
  operations: Operations,
  document: string,
  complete: number,
  runs: readonly Run[],
): Promise<number> {
  const reached = new Reached(complete, runs);
  for (const row of await operations.getAll(rangeOf(document, complete + 1)))
    if (row.last !== undefined) reached.add(row.sequence, row.last);
  return reached.complete;
}

async function nextGeneration(documents: Documents, addresses: Set<string>): Promise<void> {
  for (const address of addresses) {
    const kept = (await documents.get(address)) ?? { id: address, sequence: 0 };
    void documents.put({ ...kept, generation: (kept.generation ?? 0) + 1 });
  }
}

const lastOf = (row: KeptBatch): number => row.last ?? row.sequence;

function named<T extends Waiting>(row: T): T {
  return row.document.includes('/') ? row : { ...row, document: addressOf(row.space, row.kind, row.document) };
}

function rangeOf(id: string, first = 0, last = Number.MAX_SAFE_INTEGER): IDBKeyRange {
  return IDBKeyRange.bound([id, first], [id, last]);
}
