import type { DocumentKind } from '../core/runtime';
import { request } from '../server/api';
import { addressOf } from './address';
import type { DeviceStore } from './deviceStore';

/** What the server has of a document behind some number. */
export interface Fetched {
  /** The number of its last operation; 0 where there is none. */
  last: number;
  batch: Uint8Array;
  /** It is what stands, without its past, which is closed. */
  isStanding: boolean;
}

/** What the server has behind a number: nothing where that is its last, and all that stands where the past is closed. */
export async function fetchAfter(
  store: DeviceStore,
  space: string,
  kind: DocumentKind,
  id: string,
  after: number,
  signal?: AbortSignal,
): Promise<Fetched> {
  const path = `/api/spaces/${space}/documents/${kind}/${id}/operations?after=${after}`;
  const response = await request('GET', path, undefined, undefined, signal);
  const last = Number(response.headers.get('X-Quill-Sequence'));
  if (last === 0) void store.keepEmpty(addressOf(space, kind, id)).catch(() => {});
  const isStanding = response.headers.get('X-Quill-Whole') === '1';
  return { last, batch: new Uint8Array(await response.arrayBuffer()), isStanding };
}

/** Brings what the server has of a document onto this device without opening it. What is taken off the device meanwhile stays off. */
export async function bringHere(
  store: DeviceStore,
  space: string,
  kind: DocumentKind,
  id: string,
  signal: AbortSignal,
): Promise<void> {
  const address = addressOf(space, kind, id);
  const { reached, isStanding } = await store.expect(address);
  const after = reached.complete;
  let fetched = await fetchAfter(store, space, kind, id, after, signal);
  if (fetched.last === 0) return;
  const isOther = fetched.isStanding !== isStanding;
  // Its past was closed since, or opened: what is here is not what leads on to what came.
  if (isOther && after > 0 && !fetched.isStanding) fetched = await fetchAfter(store, space, kind, id, 0, signal);
  const { last, batch } = fetched;
  if (isOther || fetched.isStanding) await store.keepAnew(address, last, batch, fetched.isStanding, true);
  else if (last > after) await store.keep(address, after + 1, last, batch, true);
}
