import { t } from '@lingui/core/macro';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { Door, Way } from './Door';
import { NewAccount } from './NewAccount';
import { type Session } from '../server/session';
import { confirmRegistration, join } from '../sync/entering';
import { sentenceOf } from '../core/runtime';

/** What an address carries behind its hash, which no server and no proxy gets to see. */
export function secretOf(name: string): string {
  return new URLSearchParams(location.hash.slice(1)).get(name) ?? '';
}

/** Where an invitation, or the letter that finishes a registration, leads. */
export function WelcomeScreen({ onEnter }: { onEnter: (session: Session | null) => void }) {
  const [invitation] = useState(() => secretOf('invitation'));
  const [letter] = useState(() => secretOf('letter'));
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const navigate = useNavigate();

  const enter = async (make: () => Promise<Session | null>) => {
    setBusy(true);
    setProblem('');
    try {
      onEnter(await make());
      void navigate('/desk', { replace: true });
    } catch (error) {
      setProblem(sentenceOf(error));
      setBusy(false);
    }
  };
  useEffect(() => {
    if (letter) void enter(() => confirmRegistration(letter));
    // Once, with the letter the address came with.
  }, [letter]);
  const toSignIn = <Way testId="to-sign-in" onPress={() => void navigate('/sign-in')}>{t`I have an account`}</Way>;

  if (letter)
    return (
      <Door
        title={problem ? t`This did not work` : t`One moment`}
        about={problem || t`Your account is being made.`}
        testId="welcome-form"
        ways={toSignIn}
      />
    );
  if (!invitation)
    return (
      <Door
        title={t`A link is missing`}
        about={t`An account is made by invitation: open the whole link that you were given.`}
        testId="welcome-form"
        ways={toSignIn}
      />
    );
  return (
    <Door
      title={t`A place for your notes`}
      about={t`You are invited. Your own notebooks come first; your group can take you in later.`}
      submit={t`Make the account`}
      busy={busy}
      problem={problem}
      testId="welcome-form"
      onSubmit={(text) => void enter(() => join(invitation, text('name'), text('email'), text('password')))}
      ways={toSignIn}
    >
      <NewAccount />
    </Door>
  );
}
