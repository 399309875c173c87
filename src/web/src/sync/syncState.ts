import { plural, t } from '@lingui/core/macro';
import { useSyncExternalStore } from 'react';
import type { Trouble } from './sender';
import { listWords } from '../words/language';

export type SyncProblem = 'none' | 'unreachable' | 'busy' | 'signed-out';

/** How far saving has come. */
export interface SyncState {
  /** Operations not yet stored by the server. */
  waiting: number;
  /** Pages, notebooks and libraries that they belong to. */
  documents: number;
  problem: SyncProblem;
  /** Pictures and files that the server does not have all of yet. */
  assets: number;
  /** Why one of them cannot be sent, or will not be taken. */
  assetTrouble: string;
  /** Operations for which this device has no room: they are in this window alone until they are sent. */
  onlyInMemory: number;
  /** Sentences of what the server refused. */
  refused: string[];
  /** Documents that the server cannot take something of at present. */
  troubles: Trouble[];
  /** The address of a document that will soon take no more. */
  nearlyFull: string;
}

const nothingYet: SyncState = {
  waiting: 0,
  documents: 0,
  assets: 0,
  assetTrouble: '',
  problem: 'none',
  onlyInMemory: 0,
  refused: [],
  troubles: [],
  nearlyFull: '',
};
let state = nothingYet;
const listeners = new Set<() => void>();

export function setSyncState(change: Partial<SyncState>): void {
  state = { ...state, ...change };
  for (const listener of listeners) listener();
}

/** As it is now. */
export function syncState(): SyncState {
  return state;
}

/** Another person's saving begins. */
export function resetSyncState(): void {
  setSyncState(nothingYet);
}

export function useSyncState(): SyncState {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => state,
  );
}

/** The state of saving in words. */
export function syncWords(state: SyncState): string {
  const { documents, assets, assetTrouble, problem, onlyInMemory, refused, troubles } = state;
  const waiting = state.waiting + assets;
  const pages = listWords([
    ...(documents > 0 || assets === 0 ? [plural(documents, { one: '# page', other: '# pages' })] : []),
    ...(assets > 0 ? [plural(assets, { one: '# picture', other: '# pictures' })] : []),
  ]);
  if (onlyInMemory > 0 && problem !== 'none') return t`Cannot save: this device is full, keep this window open`;
  if (refused.length > 0) return t`Not taken: ${refused[0]}`;
  if (problem === 'signed-out')
    return waiting > 0
      ? t`Saved on this device, ${pages} waiting for you to sign in`
      : t`Signed out elsewhere, sign in again`;
  if (problem === 'busy')
    return waiting > 0
      ? t`Saved on this device, ${pages} waiting, the server is busy`
      : t`The server is busy, all saved`;
  if (problem === 'unreachable')
    return waiting > 0 ? t`Saved on this device, ${pages} waiting for a connection` : t`No connection, all saved`;
  if (troubles.length > 0)
    return t`Saved on this device, ${plural(troubles.length, { one: '# page', other: '# pages' })} cannot be sent: ${troubles[0]!.sentence}`;
  if (assetTrouble) return t`A picture is on this device alone: ${assetTrouble}`;
  return waiting > 0 ? t`Saving` : t`All saved`;
}
