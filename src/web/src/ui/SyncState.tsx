import { syncWords, useSyncState } from '../sync/syncState';

/** The state of saving, in words. */
export function SyncState({ className }: { className: string }) {
  const sync = useSyncState();
  const words = syncWords(sync);
  return (
    <p
      role="status"
      data-testid="sync-state"
      title={words}
      className={`${className} ${sync.problem === 'none' && sync.refused.length === 0 ? 'text-quiet' : 'font-semibold text-error'}`}
    >
      {words}
    </p>
  );
}
