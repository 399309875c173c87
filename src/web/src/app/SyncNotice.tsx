import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { useSyncState } from '../sync/syncState';
import { agree, useNewVersion } from './newVersion';
import { RefusedDialog } from './RefusedDialog';

/** One line at the head of the screen, only when the person has something to decide. */
export function SyncNotice() {
  const { problem, refused, onlyInMemory } = useSyncState();
  const version = useNewVersion();
  const [showing, setShowing] = useState(false);
  if (onlyInMemory > 0)
    return (
      <Notice testId="full-notice" action={<NoticeLink to="/account#device">Make room</NoticeLink>}>
        This device has no room left. {onlyInMemory === 1 ? 'One change is' : `${onlyInMemory} changes are`} in this
        window alone until {onlyInMemory === 1 ? 'it is' : 'they are'} sent: keep it open.
      </Notice>
    );
  if (refused.length > 0)
    return (
      <>
        <Notice
          testId="refused-notice"
          action={
            <button type="button" className="quiet-button" data-testid="show-refused" onClick={() => setShowing(true)}>
              See what it was
            </button>
          }
        >
          The server did not take a change: {refused.join(' ')} It is kept on this device.
        </Notice>
        {showing && <RefusedDialog onClose={() => setShowing(false)} />}
      </>
    );
  if (problem === 'signed-out')
    return (
      <Notice testId="signed-out-notice" action={<NoticeLink to="/sign-in">Sign in</NoticeLink>}>
        Your sign-in has ended. What you wrote is kept on this device and is sent when you have signed in.
      </Notice>
    );
  if (version.isReady)
    return (
      <Notice
        testId="version-notice"
        role="status"
        action={
          version.agreed ? undefined : (
            <button type="button" className="quiet-button" data-testid="take-version" onClick={agree}>
              Take it now
            </button>
          )
        }
      >
        {version.agreed && version.missing > 0
          ? `A newer version of Calm Quill is ready. It waits for ${version.missing === 1 ? 'another tab' : `${version.missing} other tabs`} to take it, too.`
          : 'A newer version of Calm Quill is ready. Nothing that you wrote changes.'}
      </Notice>
    );
  return null;
}

function Notice({
  testId,
  role = 'alert',
  action,
  children,
}: {
  testId: string;
  role?: 'alert' | 'status';
  action: ReactNode;
  children: ReactNode;
}) {
  return (
    <div
      role={role}
      data-testid={testId}
      className="flex flex-wrap items-center gap-3 border-b border-base-300 bg-base-200 px-5 py-2"
    >
      <span className="grow">{children}</span>
      {action}
    </div>
  );
}

function NoticeLink({ to, children }: { to: string; children: ReactNode }) {
  return (
    <Link to={to} className="quiet-button">
      {children}
    </Link>
  );
}
