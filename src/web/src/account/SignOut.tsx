import { useState } from 'react';
import { useWorkspace } from '../data/useWorkspace';
import { Dialog } from '../ui/Dialog';
import { useSession } from '../server/session';
import { signOut } from '../sync/entering';

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
    (await outbox.waiting()).length + (await outbox.refusedWork()).length + (await store.unsentAssets());
  const leave = async (withUnsent: boolean) => {
    setBusy(true);
    try {
      await signOut(person.id, withUnsent);
      // Nothing of the person stays in memory either.
      location.assign('/sign-in');
    } catch (error) {
      setProblem((error as Error).message);
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
  const words = unsent === 1 ? '1 change' : `${unsent} changes`;
  return (
    <>
      <button type="button" className="quiet-button" data-testid="sign-out" disabled={busy} onClick={() => void ask()}>
        Sign out
      </button>
      {unsent > 0 && (
        <Dialog title="Not everything is sent" onClose={() => setUnsent(0)}>
          <p className="mb-5" data-testid="unsent-words">
            The server does not have {words} that you made here. They can stay on this device until you sign in on it
            again; all else that is yours leaves it now.
          </p>
          <p role="alert" className="min-h-5 text-error">
            {problem}
          </p>
          <div className="grid gap-2">
            <button
              type="button"
              className="btn btn-primary h-11"
              data-testid="leave-keeping"
              disabled={busy}
              onClick={() => void leave(false)}
            >
              Sign out and keep {words} here
            </button>
            <button
              type="button"
              className="quiet-button h-11 text-error"
              data-testid="leave-losing"
              disabled={busy}
              onClick={() => void leave(true)}
            >
              Sign out and lose {words}
            </button>
            <button type="button" className="quiet-button h-11" onClick={() => setUnsent(0)}>
              Stay signed in
            </button>
          </div>
        </Dialog>
      )}
    </>
  );
}
