import { may } from '../data/rights';
import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { sendJson } from '../server/api';
import type { Space } from '../server/session';
import { useWorkspace } from '../data/useWorkspace';
import { Dialog, DialogButtons } from '../ui/Dialog';
import { Problem } from '../ui/FormDialog';
import { useLocks } from '../data/useShelf';
import { sentenceOf } from '../core/runtime';

const minutes = [
  [5, t`after 5 minutes`],
  [15, t`after a quarter of an hour`],
  [60, t`after an hour`],
  [480, t`after eight hours`],
] as const;

/** Locks a notebook, shuts it again, or takes the lock off. Says plainly what a lock is good for. */
export function LockDialog({
  space,
  notebook,
  name,
  onClose,
}: {
  space: Space;
  notebook: string;
  name: string;
  onClose: () => void;
}) {
  const locks = useLocks(space.id);
  const { outbox } = useWorkspace();
  const send = useLockCall(space.id);
  const [passphrase, setPassphrase] = useState('');
  const [again, setAgain] = useState<number>(15);
  const [removing, setRemoving] = useState(false);
  const path = `/api/spaces/${space.id}/locks/${notebook}`;
  const isLocked = locks.has(notebook);
  if (isLocked && !removing) {
    return (
      <Dialog title={t`“${name}” is locked`} onClose={onClose}>
        <About />
        <div className="mt-6 flex flex-wrap justify-end gap-2">
          {may(space, 'LockAny') && (
            <Button data-testid="lock-off" onClick={() => setRemoving(true)}>{t`Take the lock off`}</Button>
          )}
          {locks.get(notebook) ? (
            <Button
              look="primary"
              data-testid="lock-shut"
              onClick={() => void send.call('POST', `${path}/shut`).then((done) => done && onClose())}
            >{t`Lock it now`}</Button>
          ) : (
            <Button look="primary" onClick={onClose}>{t`Leave it locked`}</Button>
          )}
        </div>
      </Dialog>
    );
  }
  return (
    <Dialog title={removing ? t`Take the lock off “${name}”` : t`Lock “${name}”`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          // A notebook made a moment ago must be there before it can be locked.
          void outbox.settled().then(
            () =>
              (removing
                ? send.call('POST', `${path}/remove`, { password: passphrase })
                : send.call('PUT', path, { passphrase, minutes: again })
              ).then((done) => done && onClose()),
            () => send.fail(t`Locking needs a connection.`),
          );
        }}
      >
        {removing ? (
          <p>{t`Give the password of your account. The lock then comes off for everybody, whether or not anybody remembers the passphrase.`}</p>
        ) : (
          <About />
        )}
        <Secret
          label={removing ? t`Your password` : t`Passphrase`}
          value={passphrase}
          onChange={setPassphrase}
          autoComplete={removing ? 'current-password' : 'off'}
        />
        {!removing && (
          <label className="mt-3 block">
            <span className="mb-1 block font-semibold">{t`Locks again`}</span>
            <select
              className="select h-11 w-full border-base-300 bg-base-100"
              value={again}
              onChange={(event) => setAgain(Number(event.target.value))}
            >
              {minutes.map(([value, words]) => (
                <option key={value} value={value}>
                  {words}
                </option>
              ))}
            </select>
          </label>
        )}
        <Problem words={send.problem} testId="lock-problem" />
        <DialogButtons confirm={removing ? t`Take it off` : t`Lock it`} onClose={onClose} />
      </form>
    </Dialog>
  );
}

/** In place of a locked notebook's pages: asks for the passphrase. */
export function LockedPages({ space, notebook, name }: { space: Space; notebook: string; name: string }) {
  const send = useLockCall(space.id);
  const [words, setWords] = useState('');
  const [asking, setAsking] = useState(false);
  return (
    <div className="grid h-full place-content-center bg-desk p-6" data-testid="locked-pages">
      <form
        className="w-[380px] max-w-full"
        onSubmit={(event) => {
          event.preventDefault();
          void send.call('POST', `/api/spaces/${space.id}/locks/${notebook}/open`, { words });
        }}
      >
        <h1 className="text-[24px]">{name}</h1>
        <p className="mt-1 text-quiet">{t`This notebook is locked. Its pages are not on this device until you open it.`}</p>
        <Secret label={t`Passphrase`} value={words} onChange={setWords} autoComplete="off" />
        <Problem words={send.problem} testId="lock-problem" />
        <div className="mt-4 flex gap-2">
          <Button look="primary" type="submit" data-testid="lock-open">{t`Open it`}</Button>
          {may(space, 'LockAny') && <Button onClick={() => setAsking(true)}>{t`The passphrase is forgotten`}</Button>}
        </div>
      </form>
      {asking && <LockDialog space={space} notebook={notebook} name={name} onClose={() => setAsking(false)} />}
    </div>
  );
}

function About() {
  return (
    <p className="text-quiet">{t`A lock keeps the pages, their pictures and their words from whoever picks up your unlocked device or shares this library without knowing the passphrase. It does not encrypt: who looks after the server, or holds a backup, can still read them.`}</p>
  );
}

function Secret({
  label,
  value,
  onChange,
  autoComplete,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  autoComplete: string;
}) {
  return (
    <label className="mt-3 block">
      <span className="mb-1 block font-semibold">{label}</span>
      <input
        type="password"
        className="field"
        value={value}
        autoComplete={autoComplete}
        data-testid="secret"
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}

/** Calls the server about locks, and asks for their state afresh. */
function useLockCall(space: string) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState('');
  return {
    problem,
    fail: setProblem,
    call: async (method: 'POST' | 'PUT', path: string, body?: unknown): Promise<boolean> => {
      try {
        await sendJson(method, path, body ?? {});
        await queries.invalidateQueries({ queryKey: ['locks', space] });
        void queries.invalidateQueries({ queryKey: ['strip'] });
        return true;
      } catch (error) {
        setProblem(sentenceOf(error));
        return false;
      }
    },
  };
}
