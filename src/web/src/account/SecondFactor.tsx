import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { sendJson } from '../server/api';
import { ChangeForm } from './ChangeForm';
import { Field } from '../ui/Field';
import { SquareCode } from '../ui/SquareCode';
import { useSession } from '../server/session';
import { sentenceOf } from '../core/runtime';

interface Offer {
  secret: string;
  address: string;
  /** The rows of the square code, 1 for dark. */
  modules: string[];
}

/** Turns the second factor on, by scanning and giving a first code, or off. */
export function SecondFactor({ onChanged }: { onChanged: () => Promise<void> }) {
  const { person } = useSession();
  const [offer, setOffer] = useState<Offer>();
  const [codes, setCodes] = useState<string[]>();
  const [problem, setProblem] = useState('');
  const begin = () =>
    sendJson<Offer>('POST', '/api/people/me/second-factor').then(setOffer, (error: unknown) =>
      setProblem(sentenceOf(error)),
    );

  if (codes) {
    return (
      <div data-testid="recovery-codes">
        <p>{t`The second factor is on. Keep these codes where you do not lose them: each signs you in once when your phone is gone. They are shown this once.`}</p>
        <ul className="mt-3 grid grid-cols-2 gap-x-6 font-mono text-[15px]">
          {codes.map((code) => (
            <li key={code} className="border-b border-base-300 py-1.5">
              {code}
            </li>
          ))}
        </ul>
        <Button
          className="mt-4"
          onClick={() => void onChanged().then(() => setCodes(undefined))}
        >{t`I have kept them`}</Button>
      </div>
    );
  }
  if (person.secondFactor) {
    return (
      <ChangeForm
        done={t`It is off.`}
        submit={t`Turn it off`}
        testId="factor-off"
        send={(form) =>
          sendJson('POST', '/api/people/me/second-factor/off', { password: form.password }).then(onChanged)
        }
      >
        <p className="mb-3">{t`It is on.`}</p>
        <Field label={t`Your password`} name="password" type="password" autoComplete="current-password" />
      </ChangeForm>
    );
  }
  if (!offer) {
    return (
      <>
        <Button data-testid="factor-begin" onClick={() => void begin()}>{t`Set it up`}</Button>
        <p role="alert" className="text-error">
          {problem}
        </p>
      </>
    );
  }
  return (
    <ChangeForm
      done=""
      submit={t`Turn it on`}
      testId="factor-on"
      send={(form) =>
        sendJson<{ recoveryCodes: string[] }>('PUT', '/api/people/me/second-factor', {
          secret: offer.secret,
          code: form.code,
          password: form.password,
        }).then(({ recoveryCodes }) => setCodes(recoveryCodes))
      }
    >
      <p className="mb-3">{t`Scan this with an authenticator, or type the letters beside it. Then give the code that it shows.`}</p>
      <div className="mb-4 flex flex-wrap items-center gap-4">
        <SquareCode modules={offer.modules} label={t`The secret as a square code`} className="size-[168px]" />
        <p className="max-w-[220px] font-mono text-[14px] break-all" data-testid="factor-secret">
          {offer.secret}
        </p>
      </div>
      <Field label={t`Code`} name="code" autoComplete="one-time-code" inputMode="numeric" hint={t`Six digits`} />
      <Field label={t`Your password`} name="password" type="password" autoComplete="current-password" />
    </ChangeForm>
  );
}
