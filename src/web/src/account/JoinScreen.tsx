import { t } from '@lingui/core/macro';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { sentenceOf } from '../core/runtime';
import { type Invited, invitedAs } from '../group/groups';
import { Refused, sendJson } from '../server/api';
import type { Session } from '../server/session';
import { joinGroup } from '../sync/entering';
import { Door, Way } from './Door';
import { NewAccount } from './NewAccount';
import { SignInScreen } from './SignInScreen';
import { secretOf } from './WelcomeScreen';

interface Came {
  space: string | null;
  state: 'in' | 'asked';
}

/** Where an invitation into a group leads: whoever has an account goes in, whoever has none makes one and is in. */
export function JoinScreen({
  session,
  onEnter,
}: {
  session: Session | null | undefined;
  onEnter: (session: Session | null) => void;
}) {
  const [secret] = useState(() => secretOf('group'));
  const [isSigningIn, setSigningIn] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  const [isClosed, setClosed] = useState(false);
  const [hasAsked, setAsked] = useState(false);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { data: found, error } = useQuery({
    queryKey: ['joining', secret, session?.person.id],
    queryFn: () => sendJson<Invited>('POST', '/api/joining/look', { secret }),
    enabled: secret !== '',
    retry: false,
  });

  const attempt = async (work: () => Promise<void>) => {
    setBusy(true);
    setProblem('');
    try {
      await work();
    } catch (failed) {
      if (failed instanceof Refused && failed.code.startsWith('invitation-')) setClosed(true);
      setProblem(sentenceOf(failed));
    }
    setBusy(false);
  };
  const comeIn = (ask: boolean) =>
    attempt(async () => {
      const came = await sendJson<Came>('POST', '/api/joining', { secret, ask });
      if (!came.space) return setAsked(true);
      await queries.refetchQueries({ queryKey: ['session'] });
      void navigate(`/library/${came.space}`, { replace: true });
    });
  const register = (text: (name: string) => string) =>
    attempt(async () => {
      const before = found!;
      const entered = await joinGroup(secret, text('name'), text('email'), text('password'));
      onEnter(entered);
      if (before.asks) return setAsked(true);
      void navigate(`/library/${entered?.spaces.find((space) => !space.personal)?.id ?? ''}`, { replace: true });
    });
  const toDesk = <Way testId="to-desk" onPress={() => void navigate('/desk', { replace: true })}>{t`To the Desk`}</Way>;

  if (isSigningIn && !session)
    return <SignInScreen onEnter={onEnter} back={`/join${location.hash || `#group=${secret}`}`} />;
  if (!secret || error)
    return (
      <Door
        title={t`This link leads nowhere`}
        about={error ? sentenceOf(error) : t`A part of it is missing: open the whole link that you were given.`}
        testId="join-form"
        ways={toDesk}
      />
    );
  if (!found) return <Door title={t`One moment`} about="" testId="join-form" />;
  if (hasAsked)
    return (
      <Door
        title={t`The owners are asked`}
        about={t`As soon as one of them lets you in, “${found.group}” stands in your library.`}
        testId="join-asked"
        ways={toDesk}
      />
    );
  if (found.space)
    return (
      <Door
        title={t`You are in already`}
        about={t`“${found.group}” stands in your library.`}
        testId="join-form"
        ways={
          <Way testId="to-group" onPress={() => void navigate(`/group/${found.space}`, { replace: true })}>
            {t`To the group`}
          </Way>
        }
      />
    );
  const about = [
    t`${found.by} invites you.`,
    invitedAs[found.role],
    found.asks ? t`An owner answers before you are in.` : '',
  ]
    .filter(Boolean)
    .join(' ');
  if (session)
    return (
      <Door
        title={t`Come into “${found.group}”`}
        about={about}
        submit={isClosed ? t`Ask the owners` : t`Come in`}
        busy={busy}
        problem={problem}
        testId="join-form"
        onSubmit={() => void comeIn(isClosed)}
        ways={toDesk}
      />
    );
  const toSignIn = <Way testId="to-sign-in" onPress={() => setSigningIn(true)}>{t`I have an account`}</Way>;
  if (found.state !== 'open')
    return (
      <Door
        title={t`Come into “${found.group}”`}
        about={t`This invitation lets nobody in any more. If you have an account, sign in and ask the owners; else ask ${found.by} for another link.`}
        testId="join-form"
        ways={toSignIn}
      />
    );
  return (
    <Door
      title={t`Come into “${found.group}”`}
      about={about}
      submit={t`Make an account and come in`}
      busy={busy}
      problem={problem}
      testId="join-form"
      onSubmit={(text) => void register(text)}
      ways={toSignIn}
    >
      <NewAccount />
    </Door>
  );
}
