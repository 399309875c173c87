import { t } from '@lingui/core/macro';
import type { DocumentKind } from '../core/runtime';
import { DeviceStore, type Waiting } from './deviceStore';
import { base64, fromBase64 } from './faults';
import { saveBlob } from '../model/saveBlob';

const format = 'calm-quill-device';

interface KeptChange {
  space: string;
  kind: DocumentKind;
  document: string;
  /** A batch of one operation, in base64. */
  operation: string;
  refused?: string;
}

/** What a device holds that the server may not have, as a file: changes that wait, and changes that were refused. */
export interface RescueFile {
  format: typeof format;
  version: 1;
  person: string;
  savedAt: string;
  changes: KeptChange[];
}

/** Reads the file of what is unsent from the device's store itself, so that it can be had when nothing else works. */
export async function rescue(person: string): Promise<RescueFile> {
  const store = await DeviceStore.open(person, { blocked() {}, opened() {}, taken() {} });
  try {
    const [waiting, refused] = [await store.outbox(), await store.refused()];
    return fileOf(person, [...waiting, ...refused]);
  } finally {
    store.close();
  }
}

export function fileOf(person: string, changes: (Waiting & { sentence?: string })[]): RescueFile {
  return {
    format,
    version: 1,
    person,
    savedAt: new Date().toISOString(),
    changes: changes.map(({ space, kind, document, bytes, sentence }) => ({
      space,
      kind,
      document,
      operation: base64(bytes),
      ...(sentence === undefined ? {} : { refused: sentence }),
    })),
  };
}

/** The changes of such a file, to be sent again. Throws with a sentence when it is none, or another person's. */
export function changesOf(text: string, person: string): Waiting[] {
  let file: Partial<RescueFile>;
  try {
    file = JSON.parse(text) as Partial<RescueFile>;
  } catch {
    throw new Error(t`This is not a file that Calm Quill saved from a device.`);
  }
  if (file.format !== format || file.version !== 1 || !Array.isArray(file.changes))
    throw new Error(t`This is not a file that Calm Quill saved from a device.`);
  if (file.person !== person)
    throw new Error(t`This file was saved by another person, who can put it back themselves.`);
  return file.changes.map(({ space, kind, document, operation }) => {
    if (![space, kind, document, operation].every((text) => typeof text === 'string'))
      throw new Error(t`A change in this file is not whole. Nothing was put back.`);
    return { space, kind, document, bytes: bytesOf(operation), isPutBack: true };
  });
}

function bytesOf(text: string): Uint8Array {
  try {
    return fromBase64(text);
  } catch {
    throw new Error(t`A change in this file is not whole. Nothing was put back.`);
  }
}

/** Offers a text as a file to be saved. */
export function saveFile(name: string, text: string): void {
  saveBlob(name, new Blob([text], { type: 'application/json' }));
}

export async function saveRescueFile(person: string): Promise<void> {
  const file = await rescue(person);
  saveFile(`calm-quill-device-${file.savedAt.slice(0, 10)}.json`, JSON.stringify(file, null, 1));
}
