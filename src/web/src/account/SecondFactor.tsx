import { useState } from 'react';
import { sendJson } from '../server/api';
import { ChangeForm } from './ChangeForm';
import { Field } from '../ui/Field';
import { useSession } from '../server/session';

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
    sendJson<Offer>('POST', '/api/people/me/second-factor').then(setOffer, (error: Error) => setProblem(error.message));

  if (codes) {
    return (
      <div data-testid="recovery-codes">
        <p>
          The second factor is on. Keep these codes where you do not lose them: each signs you in once when your phone
          is gone. They are shown this once.
        </p>
        <ul className="mt-3 grid grid-cols-2 gap-x-6 font-mono text-[15px]">
          {codes.map((code) => (
            <li key={code} className="border-b border-base-300 py-1.5">
              {code}
            </li>
          ))}
        </ul>
        <button
          type="button"
          className="quiet-button mt-4 h-11"
          onClick={() => void onChanged().then(() => setCodes(undefined))}
        >
          I have kept them
        </button>
      </div>
    );
  }
  if (person.secondFactor) {
    return (
      <ChangeForm
        done="It is off."
        submit="Turn it off"
        testId="factor-off"
        send={(form) =>
          sendJson('POST', '/api/people/me/second-factor/off', { password: form.password }).then(onChanged)
        }
      >
        <p className="mb-3">It is on.</p>
        <Field label="Your password" name="password" type="password" autoComplete="current-password" />
      </ChangeForm>
    );
  }
  if (!offer) {
    return (
      <>
        <button type="button" className="quiet-button h-11" data-testid="factor-begin" onClick={() => void begin()}>
          Set it up
        </button>
        <p role="alert" className="text-error">
          {problem}
        </p>
      </>
    );
  }
  return (
    <ChangeForm
      done=""
      submit="Turn it on"
      testId="factor-on"
      send={(form) =>
        sendJson<{ recoveryCodes: string[] }>('PUT', '/api/people/me/second-factor', {
          secret: offer.secret,
          code: form.code,
          password: form.password,
        }).then(({ recoveryCodes }) => setCodes(recoveryCodes))
      }
    >
      <p className="mb-3">
        Scan this with an authenticator, or type the letters beside it. Then give the code that it shows.
      </p>
      <div className="mb-4 flex flex-wrap items-center gap-4">
        <SquareCode modules={offer.modules} />
        <p className="max-w-[220px] font-mono text-[14px] break-all" data-testid="factor-secret">
          {offer.secret}
        </p>
      </div>
      <Field label="Code" name="code" autoComplete="one-time-code" inputMode="numeric" hint="Six digits" />
      <Field label="Your password" name="password" type="password" autoComplete="current-password" />
    </ChangeForm>
  );
}

/** A square code (ISO/IEC 18004), dark on paper also by night, since not every camera reads it the other way round. */
function SquareCode({ modules }: { modules: string[] }) {
  const path = modules
    .flatMap((row, y) => [...row].flatMap((dark, x) => (dark === '1' ? [`M${x} ${y}h1v1h-1z`] : [])))
    .join('');
  return (
    <svg
      viewBox={`0 0 ${modules.length} ${modules.length}`}
      className="size-[168px] shrink-0 bg-white"
      role="img"
      aria-label="The secret as a square code"
      shapeRendering="crispEdges"
    >
      <path d={path} fill="#000" />
    </svg>
  );
}
