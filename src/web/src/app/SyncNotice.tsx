import { Button } from '../ui/Button';
import { plural, t } from '@lingui/core/macro';
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
      <Notice testId="full-notice" action={<NoticeLink to="/account#device">{t`Make room`}</NoticeLink>}>
        {plural(onlyInMemory, {
          one: 'This device has no room left. One change is in this window alone until it is sent: keep it open.',
          other: 'This device has no room left. # changes are in this window alone until they are sent: keep it open.',
        })}
      </Notice>
    );
  if (refused.length > 0)
    return (
      <>
        <Notice
          testId="refused-notice"
          action={<Button data-testid="show-refused" onClick={() => setShowing(true)}>{t`See what it was`}</Button>}
        >{t`The server did not take a change: ${refused.join(' ')} It is kept on this device.`}</Notice>
        {showing && <RefusedDialog onClose={() => setShowing(false)} />}
      </>
    );
  if (problem === 'signed-out')
    return (
      <Notice
        testId="signed-out-notice"
        action={<NoticeLink to="/sign-in">{t`Sign in`}</NoticeLink>}
      >{t`Your sign-in has ended. What you wrote is kept on this device and is sent when you have signed in.`}</Notice>
    );
  if (version.isReady)
    return (
      <Notice
        testId="version-notice"
        role="status"
        action={
          version.agreed ? undefined : <Button data-testid="take-version" onClick={agree}>{t`Take it now`}</Button>
        }
      >
        {version.agreed && version.missing > 0
          ? plural(version.missing, {
              one: 'A newer version of Calm Quill is ready. It waits for another tab to take it, too.',
              other: 'A newer version of Calm Quill is ready. It waits for # other tabs to take it, too.',
            })
          : t`A newer version of Calm Quill is ready. Nothing that you wrote changes.`}
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
