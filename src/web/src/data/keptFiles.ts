import { t } from '@lingui/core/macro';
import { sentenceOf } from '../core/runtime';
import { say } from '../ui/saying';
import type { Workspace } from '../sync/workspace';

/** A file on a page. */
export interface ShownFile {
  asset: string;
  name: string;
  /** Bytes; 0 where it is not known. */
  size: number;
}

/** So large is the largest file that is kept, bytes. */
export const mostFile = 64 * 1024 * 1024;
/** A file that was handed over is let go of after so long, ms. */
const letGoAfter = 60_000;
/** What is read as plain text, by the ends of names. */
const plain = /\.(txt|md|csv|tsv|log|json|ics|tex)$/i;

/** Whether a file can be looked at in the browser; all others are saved. */
export const canBeOpened = ({ name }: ShownFile): boolean => /\.pdf$/i.test(name) || plain.test(name);

/** Shows a file in a tab of its own, as what it is safe to show it as. Whatever it calls itself, nothing in it is run. */
export async function openFile(workspace: Workspace, space: string, file: ShownFile): Promise<void> {
  const blob = await fileOf(workspace, space, file);
  if (!blob) return;
  const type = plain.test(file.name) ? 'text/plain;charset=utf-8' : blob.type;
  if (type !== 'application/pdf' && !type.startsWith('text/plain')) return save(blob, file.name);
  const address = URL.createObjectURL(new Blob([blob], { type }));
  // Where no tab may be opened it is saved.
  if (!open(address, '_blank', 'noopener')) save(blob, file.name);
  setTimeout(() => URL.revokeObjectURL(address), letGoAfter);
}

/** Saves a file on the device. */
export async function saveFile(workspace: Workspace, space: string, file: ShownFile): Promise<void> {
  const blob = await fileOf(workspace, space, file);
  if (blob) save(blob, file.name);
}

async function fileOf({ assets }: Workspace, space: string, { asset }: ShownFile): Promise<Blob | undefined> {
  try {
    const blob = await assets.file(space, asset);
    if (!blob) say(t`The file is not here yet. It comes with a connection.`);
    return blob;
  } catch (problem) {
    say(sentenceOf(problem));
    return undefined;
  }
}

function save(blob: Blob, name: string): void {
  const address = URL.createObjectURL(new Blob([blob], { type: 'application/octet-stream' }));
  const link = Object.assign(document.createElement('a'), { href: address, download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), letGoAfter);
}
