import { Link } from 'react-router';
import { useSyncState } from '../sync/syncState';
import { useWorkspace } from '../sync/workspace';

/** One line at the head of the screen, only when the person has something to decide. */
export function SyncNotice() {
  const { outbox } = useWorkspace();
  const { problem, refused, waiting } = useSyncState();
  if (refused.length > 0) {
    return (
      <div
        role="alert"
        data-testid="refused-notice"
        className="flex flex-wrap items-center gap-3 border-b border-base-300 bg-base-200 px-5 py-2"
      >
        <span className="grow">
          The server did not take a change: {refused.join(' ')} It is kept on this device only.
        </span>
        <button
          type="button"
          className="quiet-button"
          onClick={() => void outbox.dropRefused().then(() => location.reload())}
        >
          Let it go
        </button>
      </div>
    );
  }
  if (problem !== 'signed-out') return null;
  return (
    <div
      role="alert"
      data-testid="signed-out-notice"
      className="flex flex-wrap items-center gap-3 border-b border-base-300 bg-base-200 px-5 py-2"
    >
      <span className="grow">
        Your sign-in has ended.{' '}
        {waiting > 0
          ? 'What you wrote is kept on this device and is sent when you have signed in.'
          : 'Nothing is lost.'}
      </span>
      <Link to="/sign-in" className="quiet-button">
        Sign in
      </Link>
    </div>
  );
}
