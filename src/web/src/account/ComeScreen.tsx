import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { sentenceOf } from '../core/runtime';
import { Refused, sendJson } from '../server/api';
import type { Session } from '../server/session';
import { joinShare } from '../sync/entering';
import { Field } from '../ui/Field';
import { Door, Way } from './Door';
import { NewAccount } from './NewAccount';
import { SignInScreen } from './SignInScreen';
import { secretOf } from './WelcomeScreen';

/** What a link shares, for whoever holds it. */
interface Found {
  name: string;
  by: string;
  isFolder: boolean;
  writes: boolean;
}

interface Came {
  space: string;
  node: string;
  isFolder: boolean;
}

/** Where a link to something shared leads: whoever has an account has it from then on, whoever has none makes one. */
export function ComeScreen({
  session,
  onEnter,
}: {
  session: Session | null | undefined;
  onEnter: (session: Session | null) => void;
}) {
  const [secret] = useState(() => secretOf('share'));
  const [passphrase, setPassphrase] = useState('');
  const [isSigningIn, setSigningIn] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  const navigate = useNavigate();
  const { data: found, error } = useQuery({
    queryKey: ['sharing', secret, passphrase],
    queryFn: () => sendJson<Found>('POST', '/api/sharing/look', { secret, passphrase }),
    enabled: secret !== '',
    retry: false,
  });
  const attempt = async (work: () => Promise<void>) => {
    setBusy(true);
    setProblem('');
    try {
      await work();
    } catch (failed) {
      setProblem(sentenceOf(failed));
    }
    setBusy(false);
  };
  const come = () =>
    attempt(async () => {
      const { space, node, isFolder } = await sendJson<Came>('POST', '/api/sharing/come', { secret, passphrase });
      // The device asks what is shared as it starts; a page that it knew of would be told that nothing is there.
      location.replace(isFolder ? '/library/list/given' : `/page/${space}/${node}`);
    });
  const register = (text: (name: string) => string) =>
    attempt(async () => {
      onEnter(await joinShare(secret, passphrase, text('name'), text('email'), text('password')));
      void navigate('/library/list/given', { replace: true });
    });

  if (isSigningIn && !session) return <SignInScreen onEnter={onEnter} back={`/join#share=${secret}`} />;
  if (needsPassphrase(error))
    return (
      <Door
        title={t`Something is shared with you`}
        about={t`Give the passphrase that came with the link.`}
        submit={t`Go on`}
        problem={passphrase ? sentenceOf(error) : ''}
        testId="passphrase-form"
        onSubmit={(text) => setPassphrase(text('passphrase'))}
      >
        <Field label={t`Passphrase`} name="passphrase" type="password" autoComplete="off" autoFocus />
      </Door>
    );
  const toDesk = <Way testId="to-desk" onPress={() => void navigate('/desk', { replace: true })}>{t`To the Desk`}</Way>;
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
  const about = found.writes
    ? t`${found.by} shares this with you. You will read it, and write on its pages.`
    : t`${found.by} shares this with you. You will read it.`;
  if (session)
    return (
      <Door
        title={t`“${found.name}”`}
        about={about}
        submit={t`Take it`}
        busy={busy}
        problem={problem}
        testId="join-form"
        onSubmit={() => void come()}
        ways={toDesk}
      />
    );
  return (
    <Door
      title={t`“${found.name}”`}
      about={about}
      submit={t`Make an account and take it`}
      busy={busy}
      problem={problem}
      testId="join-form"
      onSubmit={(text) => void register(text)}
      ways={<Way testId="to-sign-in" onPress={() => setSigningIn(true)}>{t`I have an account`}</Way>}
    >
      <NewAccount />
    </Door>
  );
}

/** Whether a link was refused for want of the right passphrase. */
export const needsPassphrase = (error: unknown): boolean =>
  error instanceof Refused && ['passphrase-needed', 'wrong-passphrase'].includes(error.code);
