import { t } from '@lingui/core/macro';
import { forgetAhead, isAhead, leftAhead } from './ahead';
import { databaseOf } from './deviceSchema';
import { DeviceStore } from './deviceStore';
import { Tabs } from './tabs';

/** What is a device's own, whoever is signed in; all else that is kept under "quill." is a person's. */
const ofTheDevice = new Set(['quill.theme', 'quill.true', 'quill.unit', 'quill.leaving', 'quill.pen-seen']);
const personOf = /^calm-quill-(.+)$/;

/** What stays of a person on a device that they left. */
export interface LeftBehind {
  person: string;
  /** Changes that were not sent, and those that were refused. */
  unsent: number;
}

/** How much of a person on this device would be lost with it. */
export async function unsentOf(person: string): Promise<number> {
  const store = await DeviceStore.open(person, { blocked() {}, opened() {}, taken() {} });
  try {
    const left = await leftAhead(person);
    return (
      left.strokes.length +
      left.texts.length +
      left.operations.length +
      (await store.outbox()).length +
      (await store.refused()).length +
      (await store.assets.unsent())
    );
  } finally {
    store.close();
  }
}

/**
 * Takes everything of a person off this device: documents, answers, pictures, what was copied, and where they were. What was not sent yet stays, for when they
 * sign in here again, unless it is to go too.
 */
export async function leaveDevice(person: string, withUnsent: boolean): Promise<LeftBehind> {
  const tabs = new Tabs(person);
  tabs.tell({ what: 'left' });
  tabs.stop();
  for (const key of Object.keys(localStorage))
    if (key.startsWith('quill.') && !ofTheDevice.has(key) && !isAhead(key)) localStorage.removeItem(key);
  sessionStorage.clear();
  await caches.delete('thumbnails');
  const unsent = withUnsent ? 0 : await unsentOf(person);
  if (unsent === 0) {
    forgetAhead(person);
    await deleteDatabase(databaseOf(person));
  } else {
    const store = await DeviceStore.open(person, { blocked() {}, opened() {}, taken() {} });
    await store.keepUnsentOnly();
    store.close();
  }
  return { person, unsent };
}

/** Takes off this device what others left who were signed in here before; nothing of the person given. */
export async function clearOthers(person: string): Promise<void> {
  for (const { name } of await indexedDB.databases()) {
    const other = personOf.exec(name ?? '')?.[1];
    if (other && other !== person) await leaveDevice(other, false);
  }
}

/** What is still here of people who left, with something unsent. */
export async function leftBehind(): Promise<LeftBehind[]> {
  const found: LeftBehind[] = [];
  for (const { name } of await indexedDB.databases()) {
    const person = personOf.exec(name ?? '')?.[1];
    const unsent = person ? await unsentOf(person) : 0;
    if (person && unsent > 0) found.push({ person, unsent });
  }
  return found;
}

function deleteDatabase(name: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const request = indexedDB.deleteDatabase(name);
    request.onsuccess = () => resolve();
    request.onerror = () => reject(request.error ?? new Error(t`The device did not let go of what it holds.`));
  });
}
