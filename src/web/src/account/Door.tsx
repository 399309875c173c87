import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import type { FormEvent, ReactNode } from 'react';
import { Quill } from '../ui/Quill';

interface DoorProps {
  title: string;
  about: string;
  /** What is sent; none where there is only something to read. */
  submit?: string;
  busy?: boolean;
  problem?: string;
  testId: string;
  onSubmit?: (form: (name: string) => string) => void;
  children?: ReactNode;
  /** Ways to go on from here. */
  ways?: ReactNode;
}

/** What everybody sees before they are signed in: the cover of the house, and one form beside it. */
export function Door({ title, about, submit, busy, problem, testId, onSubmit, children, ways }: DoorProps) {
  const send = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    onSubmit?.((name) => String(form.get(name) ?? ''));
  };
  return (
    <div className="grid h-full grid-cols-[1fr_minmax(400px,44%)] max-md:grid-cols-1">
      <Cover />
      <main className="grid place-items-center overflow-y-auto p-8">
        <form onSubmit={send} className="w-full max-w-[340px]" data-testid={testId}>
          <h1 className="mb-1 text-[30px] leading-tight">{title}</h1>
          <p className="mb-7 text-quiet">{about}</p>
          {children}
          {submit && (
            <>
              <p role="alert" className="mb-3 min-h-5 text-error" data-testid="sign-in-problem">
                {problem}
              </p>
              <Button look="primary" type="submit" className="w-full text-[15px]" disabled={busy} data-testid="sign-in">
                {submit}
              </Button>
            </>
          )}
          {ways && <div className="mt-3 grid">{ways}</div>}
        </form>
      </main>
    </div>
  );
}

/** A quiet way to another form. */
export function Way({ testId, onPress, children }: { testId: string; onPress: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      className="h-11 w-full rounded-md text-primary underline-offset-4 hover:underline"
      data-testid={testId}
      onClick={onPress}
    >
      {children}
    </button>
  );
}

/** The cover of the house: ruled spruce cloth with the quill's own line. */
function Cover() {
  return (
    <div className="relative overflow-hidden bg-spruce text-[#f6f1e7] max-md:hidden" aria-hidden="true">
      <svg
        className="absolute inset-0 size-full"
        viewBox="0 0 640 800"
        preserveAspectRatio="xMidYMid slice"
        fill="none"
      >
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
      <div className="absolute start-[96px] top-[96px] max-w-[340px]">
        <div className="mb-8 inline-block rounded-md bg-[#f6f1e7] p-3">
          <Quill size={48} />
        </div>
        <p className="font-title text-[44px] leading-[1.1]">{t`Calm Quill`}</p>
        <p className="mt-4 text-[17px] leading-relaxed text-[#d9dfd3]">{t`Notebooks written by hand, kept together by the people who write in them.`}</p>
      </div>
    </div>
  );
}
