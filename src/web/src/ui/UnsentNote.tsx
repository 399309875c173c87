import { plural } from '@lingui/core/macro';
import { useSyncState } from '../sync/syncState';

/** Says, before one parts with something, how much is waited for that would stay behind on this device; nothing where all is sent. */
export function UnsentNote() {
  const { waiting } = useSyncState();
  if (waiting === 0) return null;
  return (
    <p className="mt-3 font-semibold" data-testid="parting-waits">
      {plural(waiting, {
        one: 'One change is not sent yet. It is waited for, so that nothing is lost.',
        other: '# changes are not sent yet. They are waited for, so that nothing is lost.',
      })}
    </p>
  );
}
