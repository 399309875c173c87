import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { Door } from './Door';
import { Field } from '../ui/Field';
import { unlock } from '../server/offlineLock';
import type { Session } from '../server/session';
import { setOpenFor } from '../server/api';

/** A wrong password makes the next try wait so long, ms. */
const pauseAfterWrong = 2_000;

/** A device that has not met the server for long asks for the password before it shows what it holds. */
export function LockedScreen({ session, onOpen }: { session: Session; onOpen: (session: Session) => void }) {
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const open = async (password: string) => {
    setBusy(true);
    if (await unlock(password)) {
      setOpenFor(session.person.id);
      return onOpen(session);
    }
    setProblem(t`This is not the password that this device knows.`);
    await new Promise((resolve) => setTimeout(resolve, pauseAfterWrong));
    setBusy(false);
  };
  return (
    <Door
      title={t`Is it you, ${session.person.name.split(' ')[0]}?`}
      about={t`This device has not met the server for longer than you chose. Give your password to open what it holds.`}
      submit={t`Open`}
      busy={busy}
      problem={problem}
      testId="locked-device"
      onSubmit={(text) => void open(text('password'))}
    >
      <Field label={t`Password`} name="password" type="password" autoComplete="current-password" autoFocus />
    </Door>
  );
}
