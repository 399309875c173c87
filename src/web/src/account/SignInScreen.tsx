import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { getJson, Refused } from '../server/api';
import { Door, Way } from './Door';
import { Field } from '../ui/Field';
import { LeftBehindNote } from './LeftBehindNote';
import { type Session } from '../server/session';
import { askForLetter, register, signIn } from '../sync/entering';
import { sentenceOf } from '../core/runtime';

type Form = 'enter' | 'register' | 'forgotten' | 'written';

const titles: Record<Form, [title: string, about: string, submit: string]> = {
  enter: [t`Back to your notes`, t`Sign in with the address you registered.`, t`Sign in`],
  register: [
    t`A place for your notes`,
    t`Your own notebooks first. Your group can take you in later.`,
    t`Make the account`,
  ],
  forgotten: [
    t`A new password`,
    t`Give your address. If there is an account with it, a letter goes there with a link that is good for two hours.`,
    t`Write to me`,
  ],
  written: [
    t`We wrote to you`,
    t`Open the link in the letter to go on. If none comes within a few minutes, look among unwanted mail, or try again.`,
    '',
  ],
};

/** The door: signing in, with a second factor where there is one, and asking for a letter when a password is forgotten. */
export function SignInScreen({ onEnter, back }: { onEnter: (session: Session | null) => void; back: string }) {
  const [form, setForm] = useState<Form>('enter');
  const [asksCode, setAsksCode] = useState(false);
  const [isLeaving, setLeaving] = useState(false);
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const navigate = useNavigate();
  const { data: house } = useQuery({
    queryKey: ['house'],
    queryFn: () => getJson<{ openRegistration?: boolean; sendsMail?: boolean }>('/api/session'),
  });
  const [title, about, submit] = isLeaving
    ? [t`Have your account back`, t`You deleted it, and its days are not over yet.`, t`Have it back`]
    : titles[form];

  const go = (to: Form) => {
    setForm(to);
    setAsksCode(false);
    setLeaving(false);
    setProblem('');
  };
  const send = async (text: (name: string) => string) => {
    setBusy(true);
    setProblem('');
    try {
      if (form === 'enter') {
        onEnter(await signIn(text('email'), text('password'), text('code'), isLeaving));
        return void navigate(back, { replace: true });
      }
      if (form === 'register') await register(text('name'), text('email'), text('password'));
      else await askForLetter(text('email'));
      go('written');
    } catch (error) {
      const code = error instanceof Refused ? error.code : '';
      if (code === 'code-needed') setAsksCode(true);
      else setProblem(sentenceOf(error));
      if (code === 'leaving') setLeaving(true);
    }
    setBusy(false);
  };

  return (
    <Door
      title={title}
      about={about}
      submit={submit}
      busy={busy}
      problem={problem}
      testId="sign-in-form"
      onSubmit={(text) => void send(text)}
      ways={
        form === 'enter' ? (
          <>
            {house?.openRegistration && (
              <Way testId="toggle-register" onPress={() => go('register')}>{t`I am new here`}</Way>
            )}
            <Way testId="forgotten" onPress={() => go('forgotten')}>{t`I have forgotten my password`}</Way>
            {house && !house.openRegistration && (
              <p className="mt-2 text-[13px] text-quiet">{t`New here? An account is made by invitation: ask somebody of your group for a link.`}</p>
            )}
            <LeftBehindNote />
          </>
        ) : (
          <Way testId="toggle-register" onPress={() => go('enter')}>{t`Back to signing in`}</Way>
        )
      }
    >
      {form === 'register' && <Field label={t`Name`} name="name" autoComplete="name" />}
      {form !== 'written' && <Field label={t`E-mail`} name="email" type="email" autoComplete="username" />}
      {(form === 'enter' || form === 'register') && (
        <Field
          label={t`Password`}
          name="password"
          type="password"
          autoComplete={form === 'register' ? 'new-password' : 'current-password'}
          hint={form === 'register' ? t`At least 8 characters` : ''}
        />
      )}
      {asksCode && (
        <Field
          label={t`Code`}
          name="code"
          autoComplete="one-time-code"
          hint={t`Six digits, or a recovery code`}
          autoFocus
        />
      )}
    </Door>
  );
}
