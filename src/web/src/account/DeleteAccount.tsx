import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { sentenceOf } from '../core/runtime';
import { getJson } from '../server/api';
import { useSession } from '../server/session';
import { deleteAccount } from '../sync/entering';
import { useSyncState } from '../sync/syncState';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { FormDialog, Problem } from '../ui/FormDialog';
import { UnsentNote } from '../ui/UnsentNote';

interface Leaving {
  notebooks: number;
  shares: number;
  /** For so long the account can be had back. */
  days: number;
  groups: { id: string; name: string; others: number; isLeaderless: boolean }[];
}

const list = (groups: Leaving['groups']) => groups.map((group) => t`“${group.name}”`).join(', ');

/** Deletes one's account, having said what becomes of what was written. */
export function DeleteAccount() {
  const [isAsked, setAsked] = useState(false);
  return (
    <>
      <Button
        className="text-error"
        data-testid="delete-account"
        onClick={() => setAsked(true)}
      >{t`Delete my account`}</Button>
      {isAsked && <Farewell onClose={() => setAsked(false)} />}
    </>
  );
}

function Farewell({ onClose }: { onClose: () => void }) {
  const { person } = useSession();
  const { waiting } = useSyncState();
  const [password, setPassword] = useState('');
  const { data, error } = useQuery({
    queryKey: ['leaving'],
    queryFn: () => getJson<Leaving>('/api/people/me/leaving'),
    // Groups may have been handed over since.
    gcTime: 0,
  });
  const leaderless = data?.groups.filter((group) => group.isLeaderless) ?? [];
  return (
    <FormDialog
      title={t`Delete my account`}
      confirm={t`Delete my account`}
      disabled={!data || leaderless.length > 0 || waiting > 0 || password === ''}
      onConfirm={async () => {
        await deleteAccount(person.id, password);
        // Nothing of the person stays in memory either.
        location.assign('/sign-in');
        return 'stay' as const;
      }}
      onClose={onClose}
    >
      {(problem) => (
        <>
          {data && <Consequences leaving={data} />}
          {error && <p className="text-error">{sentenceOf(error)}</p>}
          {leaderless.length > 0 && (
            <div className="mt-3 rounded-sm border border-error p-3" data-testid="hand-over-first">
              <p className="font-semibold">{t`You are the only owner of a group that others are in. Hand it over first, or dissolve it:`}</p>
              {leaderless.map((group) => (
                <Link
                  key={group.id}
                  to={`/group/${group.id}`}
                  className="flex h-11 items-center underline underline-offset-4"
                >
                  {group.name}
                </Link>
              ))}
            </div>
          )}
          <UnsentNote />
          {leaderless.length === 0 && (
            <div className="mt-4">
              <Field
                label={t`Your password`}
                name="password"
                type="password"
                autoComplete="current-password"
                onValue={setPassword}
              />
            </div>
          )}
          <Problem words={problem} testId="delete-problem" />
        </>
      )}
    </FormDialog>
  );
}

/** What becomes of what was written. */
function Consequences({ leaving: { notebooks, shares, days, groups } }: { leaving: Leaving }) {
  const staying = groups.filter((group) => group.others > 0);
  const alone = groups.filter((group) => group.others === 0);
  return (
    <ul className="grid list-disc gap-2 pl-5" data-testid="leaving-words">
      <li>
        {plural(notebooks, {
          0: 'Your own library and what lies in its bin leave all devices.',
          one: 'Your own library with its notebook and what lies in its bin leave all devices.',
          other: 'Your own library with its # notebooks and what lies in its bin leave all devices.',
        })}{' '}
        {t`For ${days} days you can have them back: sign in as now, and you are asked. After that they are gone for good.`}
      </li>
      {shares > 0 && (
        <li>
          {plural(shares, {
            one: 'What you share out of it is taken back at once.',
            other: 'All # things you share out of it are taken back at once.',
          })}
        </li>
      )}
      {staying.length > 0 && (
        <li>{t`What you wrote in ${list(staying)} stays there, with your name, for those who are in it. To come back you have to be invited anew.`}</li>
      )}
      {alone.length > 0 && (
        <li>{t`${list(alone)}, where you are alone, is dissolved. If you come back in time you can have it back too.`}</li>
      )}
    </ul>
  );
}
