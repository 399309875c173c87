import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { DocumentKind } from '../core/runtime';

/** An operation that waits to be sent, in the order in which it was made. */
export interface Waiting {
  /** Its place in the outbox; none while it is in memory alone. */
  n?: number;
  space: string;
  kind: DocumentKind;
  /** Its address; the id alone in what an earlier version left. */
  document: string;
  /** A batch of one operation. */
  bytes: Uint8Array;
  /** It came from a file that another of the person's devices may have saved, signed with that one's number. */
  isPutBack?: true;
}

/** An operation that the server did not take, with its reason; kept until the person decides. */
export interface RefusedWork extends Waiting {
  sentence: string;
  /** When, UTC ms; none in what an earlier version left. */
  at?: number;
}

export interface KeptDocument {
  /** Its address. */
  id: string;
  /** All operations up to this number are on the device. */
  sequence: number;
  snapshot?: Uint8Array;
  /** Changes whenever something that was applied here is taken back: what was made of it before must not be kept. */
  generation?: number;
  /** Taken off this device, and not opened since: nothing of it is kept. */
  forgotten?: boolean;
  /** It was known once that nobody had written in it: the device then has it from the beginning. */
  fromStart?: boolean;
  /** What is here is what stands on a page, without its past, which is closed: it leads on to nothing that comes. */
  isStanding?: boolean;
  /** When something made on this device was stored by the server last, UTC ms. */
  writtenAt?: number;
}

/** A batch of the server's operations as it came. */
export interface KeptBatch {
  document: string;
  /** The number of its first operation. */
  sequence: number;
  /** The number of its last; none in what an earlier version left. */
  last?: number;
  bytes: Uint8Array;
}

/** How a page was painted: render packets in their order, good for one state of the page and one build of Core. */
export interface KeptOutlines {
  /** The page's address. */
  id: string;
  sequence: number;
  build: string;
  packets: Uint8Array[];
}

/** A picture or file of a space as it lies on the device. */
export interface KeptAsset {
  space: string;
  id: string;
  file: Blob;
  /** When it was shown last, UTC ms. */
  usedAt: number;
  /** It was brought in here, and the server does not have all of it yet. */
  waiting?: 1;
  /** The server's words where it will not have it. */
  refused?: string;
}

export interface DeviceSchema extends DBSchema {
  outlines: { key: string; value: KeptOutlines };
  documents: { key: string; value: KeptDocument };
  operations: { key: [string, number]; value: KeptBatch };
  outbox: { key: number; value: Waiting; indexes: { document: string } };
  refused: { key: number; value: RefusedWork };
  answers: { key: string; value: unknown };
  assets: { key: [string, string]; value: KeptAsset; indexes: { waiting: number; refused: string; usedAt: number } };
}

const version = 4;

/** What the database of a person on this device is called. */
export const databaseOf = (person: string): string => `calm-quill-${person}`;

/** What is told while the store is opened, and after. */
export interface StoreEvents {
  /** An older version of the application has it open in another tab, which must be closed first. */
  blocked: () => void;
  /** It is open after all. */
  opened: () => void;
  /** A newer version in another tab needs it, or it was deleted: it is closed from now on. */
  taken: () => void;
}

/** Opens the store of a person, bringing it up to the present version. What an earlier version kept is kept. */
export async function openDevice(person: string, events: StoreEvents): Promise<IDBPDatabase<DeviceSchema>> {
  let isOpen = false;
  const opening = openDB<DeviceSchema>(databaseOf(person), version, {
    upgrade(database, before, _, transaction) {
      if (before < 1) {
        database.createObjectStore('documents', { keyPath: 'id' });
        database.createObjectStore('operations', { keyPath: ['document', 'sequence'] });
        database.createObjectStore('outbox', { keyPath: 'n', autoIncrement: true }).createIndex('document', 'document');
        database.createObjectStore('refused', { keyPath: 'n' });
        database.createObjectStore('answers');
      }
      if (before < 2) database.createObjectStore('outlines', { keyPath: 'id' });
      if (before < 4) {
        const assets = database.createObjectStore('assets', { keyPath: ['space', 'id'] });
        assets.createIndex('waiting', 'waiting');
        assets.createIndex('refused', 'refused');
        assets.createIndex('usedAt', 'usedAt');
      }
      if (before === 1 || before === 2) {
        // Numbers of before may have been ahead of what was kept. They begin anew: what is here stays, and what is missing is asked for again.
        void transaction.objectStore('outlines').clear();
        void recount(transaction.objectStore('documents'));
      }
    },
    blocked: () => !isOpen && events.blocked(),
    blocking: (_, __, event) => {
      (event.target as IDBDatabase).close();
      events.taken();
    },
    terminated: () => events.taken(),
  });
  const database = await opening;
  isOpen = true;
  events.opened();
  return database;
}

interface Documents {
  openCursor(): Promise<{
    value: KeptDocument;
    update(value: KeptDocument): Promise<unknown>;
    continue(): ReturnType<Documents['openCursor']>;
  } | null>;
}

async function recount(documents: Documents): Promise<void> {
  for (let cursor = await documents.openCursor(); cursor; cursor = await cursor.continue())
    void cursor.update({ ...cursor.value, sequence: 0 });
}
