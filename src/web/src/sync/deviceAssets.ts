import type { IDBPDatabase } from 'idb';
import type { DeviceSchema, KeptAsset } from './deviceSchema';

/** The pictures and files that this device holds for one person: what waits to be sent, what the server will not have, and what was shown lately. */
export class DeviceAssets {
  constructor(private readonly database: IDBPDatabase<DeviceSchema>) {}

  /** Keeps a picture or file. One that waits to be sent goes on waiting, whoever keeps it again. */
  async keep(asset: KeptAsset): Promise<void> {
    const transaction = this.database.transaction('assets', 'readwrite');
    const kept = await transaction.store.get([asset.space, asset.id]);
    if (!kept || (asset.waiting && !kept.waiting)) void transaction.store.put(asset);
    await transaction.done;
  }

  /** A picture or file that is on the device, which is noted as used now. */
  async get(space: string, id: string): Promise<KeptAsset | undefined> {
    const transaction = this.database.transaction('assets', 'readwrite');
    const kept = await transaction.store.get([space, id]);
    if (kept) void transaction.store.put({ ...kept, usedAt: Date.now() });
    await transaction.done;
    return kept;
  }

  /** What the server is to have yet, oldest first. */
  async waiting(): Promise<KeptAsset[]> {
    return (await this.database.getAllFromIndex('assets', 'waiting')).sort((a, b) => a.usedAt - b.usedAt);
  }

  /** Pictures and files that the server will not have. */
  refused(): Promise<KeptAsset[]> {
    return this.database.getAllFromIndex('assets', 'refused');
  }

  /** How many pictures and files the server does not have, or will not have. */
  async unsent(): Promise<number> {
    const counts = await Promise.all([
      this.database.countFromIndex('assets', 'waiting'),
      this.database.countFromIndex('assets', 'refused'),
    ]);
    return counts[0] + counts[1];
  }

  /** The server has all of it now, or says why it will not. */
  async settle(space: string, id: string, refused = ''): Promise<void> {
    const transaction = this.database.transaction('assets', 'readwrite');
    const kept = await transaction.store.get([space, id]);
    if (kept) {
      const { waiting: _, refused: __, ...left } = kept;
      void transaction.store.put(refused ? { ...left, refused } : left);
    }
    await transaction.done;
  }

  /** Of what the server has as well, takes away what was not shown for longest, until no more than so many bytes are left. */
  async trim(mostBytes: number): Promise<void> {
    const transaction = this.database.transaction('assets', 'readwrite');
    let held = 0;
    for (
      let cursor = await transaction.store.index('usedAt').openCursor(null, 'prev');
      cursor;
      cursor = await cursor.continue()
    ) {
      held += cursor.value.file.size;
      if (held > mostBytes && !cursor.value.waiting && !cursor.value.refused) void cursor.delete();
    }
    await transaction.done;
  }
}
