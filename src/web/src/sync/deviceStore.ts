import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { DocumentKind } from '../core/runtime';
import { addressOf, idOf } from './address';

/** An operation that waits to be sent, in the order in which it was made. */
export interface Waiting {
  n?: number;
  space: string;
  kind: DocumentKind;
  /** Its address; the id alone in what an earlier version left. */
  document: string;
  /** A batch of one operation. */
  bytes: Uint8Array;
}

/** An operation that the server did not take, with its reason; kept until the person decides. */
export interface RefusedWork extends Waiting {
  sentence: string;
}

interface KeptDocument {
  /** Its address. */
  id: string;
  /** All operations up to this number are on the device. */
  sequence: number;
  snapshot?: Uint8Array;
}

/** How a page was painted: render packets in their order, good for one state of the page and one build of Core. */
interface KeptOutlines {
  /** The page's address. */
  id: string;
  sequence: number;
  build: string;
  packets: Uint8Array[];
}

interface Schema extends DBSchema {
  outlines: { key: string; value: KeptOutlines };
  documents: { key: string; value: KeptDocument };
  operations: { key: [string, number]; value: { document: string; sequence: number; bytes: Uint8Array } };
  outbox: { key: number; value: Waiting; indexes: { document: string } };
  refused: { key: number; value: RefusedWork };
  answers: { key: string; value: unknown };
}

/** What this device holds for one person: documents, the outbox, and last answers for lists. */
export class DeviceStore {
  /** Documents that were taken off this device and not opened since: what is still on its way into the store is not kept. */
  private readonly forgotten = new Set<string>();

  private constructor(private readonly database: IDBPDatabase<Schema>) {}

  static async open(person: string): Promise<DeviceStore> {
    return new DeviceStore(
      await openDB<Schema>(`calm-quill-${person}`, 2, {
        upgrade(database, before) {
          database.createObjectStore('outlines', { keyPath: 'id' });
          if (before > 0) return;
          database.createObjectStore('documents', { keyPath: 'id' });
          database.createObjectStore('operations', { keyPath: ['document', 'sequence'] });
          database
            .createObjectStore('outbox', { keyPath: 'n', autoIncrement: true })
            .createIndex('document', 'document');
          database.createObjectStore('refused', { keyPath: 'n' });
          database.createObjectStore('answers');
        },
      }),
    );
  }

  /** Everything kept of a document: its number and the batches to apply, what waits in the outbox included. */
  async load(
    address: string,
  ): Promise<{ sequence: number; batches: Uint8Array[]; rows: number; outlines: KeptOutlines | undefined }> {
    this.forgotten.delete(address);
    await this.adopt(address);
    const transaction = this.database.transaction(['documents', 'operations', 'outbox', 'outlines']);
    const [kept, later, waiting, outlines] = await Promise.all([
      transaction.objectStore('documents').get(address),
      transaction.objectStore('operations').getAll(rangeOf(address)),
      transaction.objectStore('outbox').index('document').getAll(address),
      transaction.objectStore('outlines').get(address),
    ]);
    const batches = [
      ...(kept?.snapshot ? [kept.snapshot] : []),
      ...later.map((row) => row.bytes),
      ...waiting.map((row) => row.bytes),
    ];
    const isCurrent = outlines !== undefined && waiting.length === 0 && outlines.sequence === kept?.sequence;
    return { sequence: kept?.sequence ?? 0, batches, rows: later.length, outlines: isCurrent ? outlines : undefined };
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
    if (this.forgotten.has(id)) return true;
    const transaction = this.database.transaction(['documents', 'outbox', 'outlines'], 'readwrite');
    const [kept, waiting] = await Promise.all([
      transaction.objectStore('documents').get(id),
      transaction.objectStore('outbox').index('document').count(id),
    ]);
    const isGood = kept?.sequence === sequence && waiting === 0;
    if (isGood) await transaction.objectStore('outlines').put(outlines);
    await transaction.done;
    return isGood;
  }

  /** Keeps a batch that begins at a number; the document is then complete up to `complete`. */
  async keep(id: string, first: number, bytes: Uint8Array, complete: number): Promise<void> {
    if (this.forgotten.has(id)) return;
    const transaction = this.database.transaction(['documents', 'operations'], 'readwrite');
    const documents = transaction.objectStore('documents');
    const kept = (await documents.get(id)) ?? { id, sequence: 0 };
    await documents.put({ ...kept, sequence: Math.max(kept.sequence, complete) });
    await transaction.objectStore('operations').put({ document: id, sequence: first, bytes });
    await transaction.done;
  }

  /** The document is complete up to a number, since its own operation got the next one. */
  async advance(id: string, complete: number): Promise<void> {
    if (this.forgotten.has(id)) return;
    const transaction = this.database.transaction('documents', 'readwrite');
    const kept = (await transaction.store.get(id)) ?? { id, sequence: 0 };
    if (kept.sequence < complete) await transaction.store.put({ ...kept, sequence: complete });
    await transaction.done;
  }

  /** Replaces single rows by one snapshot, unless something of the document still waits to be sent. */
  async compact(id: string, snapshot: Uint8Array, sequence: number): Promise<void> {
    if (this.forgotten.has(id)) return;
    const transaction = this.database.transaction(['documents', 'operations', 'outbox'], 'readwrite');
    if ((await transaction.objectStore('outbox').index('document').count(id)) === 0) {
      await transaction.objectStore('documents').put({ id, sequence, snapshot });
      await transaction.objectStore('operations').delete(rangeOf(id));
    }
    await transaction.done;
  }

  /** The addresses of the documents of which something is on this device; ids alone in what an earlier version left. */
  async heldDocuments(): Promise<Set<string>> {
    const [kept, waiting] = await Promise.all([this.database.getAllKeys('documents'), this.outbox()]);
    return new Set([...kept, ...waiting.map((row) => row.document)]);
  }

  /** Takes documents off this device, but for those of which something still waits to be sent. */
  async forget(ids: string[]): Promise<void> {
    const transaction = this.database.transaction(['documents', 'operations', 'outbox', 'outlines'], 'readwrite');
    for (const id of ids) {
      await transaction.objectStore('outlines').delete(id);
      this.forgotten.add(id);
      if ((await transaction.objectStore('outbox').index('document').count(id)) > 0) continue;
      await transaction.objectStore('documents').delete(id);
      await transaction.objectStore('operations').delete(rangeOf(id));
    }
    await transaction.done;
  }

  /** Keeps operations in the order given, all of them or none. */
  async addToOutbox(waiting: readonly Waiting[]): Promise<void> {
    const transaction = this.database.transaction('outbox', 'readwrite');
    await Promise.all([...waiting.map((row) => transaction.store.add(row)), transaction.done]);
  }

  async outbox(): Promise<Waiting[]> {
    return (await this.database.getAll('outbox')).map((row) =>
      row.document.includes('/') ? row : { ...row, document: addressOf(row.space, row.kind, row.document) },
    );
  }

  /** Moves operations from the outbox to the stored ones, in one step. */
  async markStored(stored: readonly { waiting: Waiting; sequence: number }[]): Promise<void> {
    const transaction = this.database.transaction(['operations', 'outbox'], 'readwrite');
    const moves = stored.flatMap(({ waiting, sequence }) => [
      transaction.objectStore('operations').put({ document: waiting.document, sequence, bytes: waiting.bytes }),
      transaction.objectStore('outbox').delete(waiting.n!),
    ]);
    await Promise.all([...moves, transaction.done]);
  }

  async markRefused(waiting: Waiting, sentence: string): Promise<void> {
    const transaction = this.database.transaction(['refused', 'outbox'], 'readwrite');
    await transaction.objectStore('refused').put({ ...waiting, sentence });
    await transaction.objectStore('outbox').delete(waiting.n!);
    await transaction.done;
  }

  refused(): Promise<RefusedWork[]> {
    return this.database.getAll('refused');
  }

  async dropRefused(): Promise<void> {
    await this.database.clear('refused');
  }

  async replaceWaiting(rows: Waiting[]): Promise<void> {
    const transaction = this.database.transaction('outbox', 'readwrite');
    await Promise.all(rows.map((row) => transaction.store.put(row)));
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

function rangeOf(id: string): IDBKeyRange {
  return IDBKeyRange.bound([id, 0], [id, Number.MAX_SAFE_INTEGER]);
}
