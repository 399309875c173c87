import { Button } from '../ui/Button';
import { plural, t } from '@lingui/core/macro';
import { useEffect, useRef, useState } from 'react';
import { forgetAllPainted } from '../pictures/painted';
import { changesOf, saveRescueFile } from '../sync/rescue';
import { syncWords, useSyncState } from '../sync/syncState';
import { useWorkspace } from '../data/useWorkspace';
import { bytesWords } from '../model/bytes';
import { sendJson } from '../server/api';
import { Field } from '../ui/Field';
import { OfflineChoice } from './OfflineChoice';
import { type LockAfter, lockAfter, setLock } from '../server/offlineLock';
import { useSession } from '../server/session';
import { sentenceOf } from '../core/runtime';

/** What this device holds, how much room it has, and what can be done about both. */
export function DeviceKeeping() {
  const { person } = useSession();
  const { store, outbox, keeping } = useWorkspace();
  const sync = useSyncState();
  const [room, setRoom] = useState<{ used: number; all: number; isKept: boolean }>();
  const [said, setSaid] = useState<{ words: string; isProblem?: boolean }>({ words: '' });
  const chooser = useRef<HTMLInputElement>(null);
  const look = async () => {
    const { usage = 0, quota = 0 } = await navigator.storage.estimate();
    setRoom({ used: usage, all: quota, isKept: await navigator.storage.persisted() });
  };
  useEffect(() => void look(), []);
  const freeUp = async () => {
    await store.freeUp(await keeping.pages());
    await caches.delete('thumbnails');
    forgetAllPainted();
    await outbox.count();
    await look();
    setSaid({ words: t`Room was made. What you open next is fetched again.` });
  };
  const putBack = async (file: File) => {
    try {
      const changes = changesOf(await file.text(), person.id);
      await outbox.add(...changes);
      setSaid({
        words: plural(changes.length, { one: '# change is sent again.', other: '# changes are sent again.' }),
      });
    } catch (problem) {
      setSaid({ words: sentenceOf(problem), isProblem: true });
    }
  };
  return (
    <div data-testid="device-keeping" id="device">
      <p>{syncWords(sync)}.</p>
      {room && (
        <>
          <p className="mt-2 flex justify-between gap-4" data-testid="device-room">
            <span>{t`Room used here`}</span>
            <span className="text-quiet">{t`${bytesWords(room.used)} of ${bytesWords(room.all)}`}</span>
          </p>
          <div className="mt-1 h-1 bg-base-300" aria-hidden="true">
            <div
              className={`h-full ${room.used > room.all * 0.9 ? 'bg-accent' : 'bg-secondary'}`}
              style={{ width: `${Math.max(0.5, Math.min(100, (room.used / Math.max(1, room.all)) * 100))}%` }}
            />
          </div>
          <p className="mt-2 text-[13px] text-quiet">
            {room.isKept
              ? t`The browser keeps this as long as you do.`
              : t`The browser may clear this when the device runs short of room. Unsent work goes out as soon as there is a connection.`}
          </p>
        </>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        <Button data-testid="free-up" onClick={() => void freeUp()}>{t`Free up room`}</Button>
        <Button
          data-testid="save-unsent"
          onClick={() => void saveRescueFile(person.id)}
        >{t`Save unsent work as a file`}</Button>
        <Button onClick={() => chooser.current?.click()}>{t`Put such a file back`}</Button>
        <input
          ref={chooser}
          type="file"
          accept="application/json,.json"
          aria-label={t`A file of unsent work`}
          data-testid="put-unsent-back"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = '';
            if (file) void putBack(file);
          }}
        />
      </div>
      <p
        role={said.isProblem ? 'alert' : 'status'}
        className={`min-h-5 pt-2 ${said.isProblem ? 'text-error' : 'text-success'}`}
        data-testid="device-said"
      >
        {said.words}
      </p>
      <OfflineChoice />
      <OfflineLock />
    </div>
  );
}

const choices: { after: LockAfter; label: string }[] = [
  { after: 'never', label: t`Never` },
  { after: 'day', label: t`After a day` },
  { after: 'week', label: t`After a week` },
];

/** Whether the device asks for the password before it opens without having met the server for so long. */
function OfflineLock() {
  const [kept, setKept] = useState(lockAfter());
  const [chosen, setChosen] = useState(kept);
  const [problem, setProblem] = useState('');
  const choose = async (after: LockAfter, password: string) => {
    try {
      if (after !== 'never') await sendJson('POST', '/api/people/me/password/check', { old: password });
      await setLock(after, password);
      setKept(after);
      setChosen(after);
      setProblem('');
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  return (
    <form
      className="mt-2 border-t border-base-300 pt-4"
      data-testid="offline-lock"
      onSubmit={(event) => {
        event.preventDefault();
        void choose(chosen, String(new FormData(event.currentTarget).get('password') ?? ''));
      }}
    >
      <fieldset>
        <legend className="mb-2">{t`Ask for my password before this device opens without a connection`}</legend>
        <div className="flex flex-wrap gap-2">
          {choices.map(({ after, label }) => (
            <label
              key={after}
              className={`flex h-11 items-center gap-2 rounded-md border px-4 ${chosen === after ? 'border-primary font-semibold' : 'border-base-300'}`}
            >
              <input
                type="radio"
                name="after"
                className="radio radio-primary radio-xs"
                data-testid={`lock-${after}`}
                checked={chosen === after}
                onChange={() => {
                  setChosen(after);
                  if (after === 'never') void choose(after, '');
                }}
              />
              {label}
            </label>
          ))}
        </div>
      </fieldset>
      {chosen !== kept && chosen !== 'never' && (
        <div className="mt-3">
          <Field label={t`Your password`} name="password" type="password" autoComplete="current-password" />
          <Button type="submit" data-testid="lock-confirm">{t`Ask from now on`}</Button>
        </div>
      )}
      <p role="alert" className="min-h-5 pt-2 text-error">
        {problem}
      </p>
    </form>
  );
}
