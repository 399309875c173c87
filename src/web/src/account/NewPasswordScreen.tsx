import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { sendJson } from '../server/api';
import { Door, Way } from './Door';
import { Field } from '../ui/Field';
import { secretOf } from './WelcomeScreen';
import { sentenceOf } from '../core/runtime';

/** Where the letter about a forgotten password leads. */
export function NewPasswordScreen() {
  const [letter] = useState(() => secretOf('letter'));
  const [problem, setProblem] = useState('');
  const [done, setDone] = useState(false);
  const navigate = useNavigate();
  const send = async (password: string) => {
    setProblem('');
    try {
      await sendJson('POST', '/api/people/passwords', { letter, password });
      setDone(true);
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  const ways = (
    <Way testId="to-sign-in" onPress={() => void navigate('/sign-in')}>
      {done ? t`Sign in` : t`Back to signing in`}
    </Way>
  );
  if (done)
    return (
      <Door
        title={t`The password is set`}
        about={t`You are signed out everywhere. Sign in with the new one.`}
        testId="new-password-form"
        ways={ways}
      />
    );
  return (
    <Door
      title={t`A new password`}
      about={t`It ends all sign-ins of before. What your devices hold unsent stays on them until you sign in there again.`}
      submit={t`Set the password`}
      problem={problem}
      testId="new-password-form"
      onSubmit={(text) => void send(text('password'))}
      ways={ways}
    >
      <Field
        label={t`New password`}
        name="password"
        type="password"
        autoComplete="new-password"
        hint={t`At least 8 characters`}
      />
    </Door>
  );
}
