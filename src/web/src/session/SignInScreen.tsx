import { type FormEvent, useId, useState } from 'react';
import { useNavigate } from 'react-router';
import { Quill } from '../app/Quill';
import { register, type Session, signIn } from './session';

/** The door: signing in, or making an account. */
export function SignInScreen({ onEnter, back }: { onEnter: (session: Session | null) => void; back: string }) {
  const [newcomer, setNewcomer] = useState(false);
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const navigate = useNavigate();

  const enter = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string) => String(form.get(name) ?? '');
    setBusy(true);
    setProblem('');
    try {
      const session = newcomer ? await register(text('name'), text('email'), text('password')) : await signIn(text('email'), text('password'));
      onEnter(session);
      void navigate(back, { replace: true });
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };

  return (
    <div className="grid h-full grid-cols-[1fr_minmax(400px,44%)] max-md:grid-cols-1">
      <Cover />
      <main className="grid place-items-center overflow-y-auto p-8">
        <form onSubmit={(event) => void enter(event)} className="w-full max-w-[340px]" data-testid="sign-in-form">
          <h1 className="mb-1 text-[30px] leading-tight">{newcomer ? 'A place for your notes' : 'Back to your notes'}</h1>
          <p className="mb-7 text-quiet">{newcomer ? 'Your own notebooks first. Your group can take you in later.' : 'Sign in with the address you registered.'}</p>
          {newcomer && <Field label="Name" name="name" autoComplete="name" />}
          <Field label="E-mail" name="email" type="email" autoComplete="username" />
          <Field label="Password" name="password" type="password" autoComplete={newcomer ? 'new-password' : 'current-password'} hint={newcomer ? 'At least 8 characters' : ''} />
          <p role="alert" className="mb-3 min-h-5 text-error" data-testid="sign-in-problem">
            {problem}
          </p>
          <button type="submit" className="btn btn-primary h-11 w-full text-[15px]" disabled={busy} data-testid="sign-in">
            {newcomer ? 'Make the account' : 'Sign in'}
          </button>
          <button
            type="button"
            className="mt-3 h-11 w-full rounded-md text-primary underline-offset-4 hover:underline"
            data-testid="toggle-register"
            onClick={() => {
              setNewcomer(!newcomer);
              setProblem('');
            }}
          >
            {newcomer ? 'I have an account' : 'I am new here'}
          </button>
        </form>
      </main>
    </div>
  );
}

/** A labelled text field. */
export function Field({ label, name, type = 'text', autoComplete, hint, value }: { label: string; name: string; type?: string; autoComplete?: string; hint?: string; value?: string }) {
  const id = useId();
  return (
    <div className="mb-4">
      <label htmlFor={id} className="mb-1 flex justify-between">
        <span className="font-semibold">{label}</span>
        {hint && <span className="text-[13px] text-quiet">{hint}</span>}
      </label>
      <input id={id} name={name} type={type} autoComplete={autoComplete} defaultValue={value} required className="field" />
    </div>
  );
}

/** The cover of the house: ruled spruce cloth with the quill's own line. */
function Cover() {
  return (
    <div className="relative overflow-hidden bg-spruce text-[#f6f1e7] max-md:hidden" aria-hidden="true">
      <svg className="absolute inset-0 size-full" viewBox="0 0 640 800" preserveAspectRatio="xMidYMid slice" fill="none">
        {Array.from({ length: 24 }, (_, i) => (
          <circle key={i} cx="520" cy="690" r={40 + i * 34} stroke="#f6f1e7" strokeOpacity={0.16 - i * 0.004} />
        ))}
        <path d="M0 0h14v800H0z" fill="#000" fillOpacity=".16" />
        <path
          d="M96 560c28-46 60-70 74-58s-22 62-8 70 44-54 62-50-16 48 0 54 40-46 60-46-8 42 10 46 42-40 64-42 6 34 26 36 52-26 84-30"
          stroke="#e9b9a5"
          strokeWidth="3.2"
          strokeLinecap="round"
        />
      </svg>
      <div className="absolute left-[96px] top-[96px] max-w-[340px]">
        <div className="mb-8 inline-block rounded-md bg-[#f6f1e7] p-3">
          <Quill size={48} />
        </div>
        <p className="font-title text-[44px] leading-[1.1]">Calm Quill</p>
        <p className="mt-4 text-[17px] leading-relaxed text-[#d9dfd3]">Notebooks written by hand, kept together by the people who write in them.</p>
      </div>
    </div>
  );
}
