import { Button } from '../ui/Button';
import { plural, t } from '@lingui/core/macro';
import { useState } from 'react';
import { useWorkspace } from '../data/useWorkspace';
import { Dialog } from '../ui/Dialog';
import { useSession } from '../server/session';
import { signOut } from '../sync/entering';
import { sentenceOf } from '../core/runtime';

/** What waits is given so long to be sent before it is asked about, ms. */
const patience = 4_000;

/** Signs out: what is here of the person leaves the device. What could not be sent is asked about first. */
export function SignOut() {
  const { person } = useSession();
  const { outbox, store } = useWorkspace();
  const [unsent, setUnsent] = useState(0);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  const count = async () =>
    (await outbox.waiting()).length + (await outbox.refusedWork()).length + (await store.assets.unsent());
  const leave = async (withUnsent: boolean) => {
    setBusy(true);
    try {
      await signOut(person.id, withUnsent);
      // Nothing of the person stays in memory either.
      location.assign('/sign-in');
    } catch (error) {
      setProblem(sentenceOf(error));
      setBusy(false);
    }
  };
  const ask = async () => {
    setBusy(true);
    if ((await count()) > 0)
      await Promise.race([outbox.settled(), new Promise((resolve) => setTimeout(resolve, patience))]).catch(() => {});
    const left = await count();
    if (left === 0) return leave(false);
    setBusy(false);
    setUnsent(left);
  };
  const words = plural(unsent, { one: '# change', other: '# changes' });
  return (
    <>
      <Button data-testid="sign-out" disabled={busy} onClick={() => void ask()}>{t`Sign out`}</Button>
      {unsent > 0 && (
        <Dialog title={t`Not everything is sent`} onClose={() => setUnsent(0)}>
          <p
            className="mb-5"
            data-testid="unsent-words"
          >{t`The server does not have ${words} that you made here. They can stay on this device until you sign in on it again; all else that is yours leaves it now.`}</p>
          <p role="alert" className="min-h-5 text-error">
            {problem}
          </p>
          <div className="grid gap-2">
            <Button
              look="primary"
              data-testid="leave-keeping"
              disabled={busy}
              onClick={() => void leave(false)}
            >{t`Sign out and keep ${words} here`}</Button>
            <Button
              className="text-error"
              data-testid="leave-losing"
              disabled={busy}
              onClick={() => void leave(true)}
            >{t`Sign out and lose ${words}`}</Button>
            <Button onClick={() => setUnsent(0)}>{t`Stay signed in`}</Button>
          </div>
        </Dialog>
      )}
    </>
  );
}
