import { useEffect, useState } from 'react';
import { type SyncState as State, syncWords, useSyncState } from '../sync/syncState';

/** The state of saving, in words. It is told aloud when something is amiss, and when that is over; not at every stroke. */
export function SyncState({ className }: { className: string }) {
  const sync = useSyncState();
  const words = syncWords(sync);
  const isAmiss = isAmissIn(sync);
  const isSaved = !isAmiss && sync.waiting + sync.assets === 0;
  const [told, setTold] = useState('');
  useEffect(() => {
    if (isAmiss) setTold(words);
    else if (isSaved) setTold((before) => (before ? words : ''));
  }, [isAmiss, isSaved, words]);
  return (
    <>
      <p
        data-testid="sync-state"
        title={words}
        className={`${className} ${sync.problem === 'none' && sync.refused.length === 0 ? 'text-quiet' : 'font-semibold text-error'}`}
      >
        {words}
      </p>
      <p role="status" data-testid="sync-told" className="sr-only">
        {told}
      </p>
    </>
  );
}

const isAmissIn = ({ problem, refused, troubles, onlyInMemory, assetTrouble }: State): boolean =>
  problem !== 'none' || refused.length > 0 || troubles.length > 0 || onlyInMemory > 0 || assetTrouble !== '';
