import { Button } from '../ui/Button';
import { type FormEvent, type ReactNode, useState } from 'react';
import { sentenceOf } from '../core/runtime';

interface ChangeFormProps {
  children: ReactNode;
  submit: string;
  done: string;
  send: (form: Record<string, string>) => Promise<unknown>;
  testId: string;
}

/** A small form of the account: fields, one button, and what came of it beside it. */
export function ChangeForm({ children, submit, done, send, testId }: ChangeFormProps) {
  const [state, setState] = useState<{ kind: 'idle' | 'done' | 'problem'; words: string }>({ kind: 'idle', words: '' });
  const change = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    try {
      await send(Object.fromEntries([...new FormData(form)].map(([name, value]) => [name, String(value)])));
      setState({ kind: 'done', words: done });
      for (const field of form.querySelectorAll<HTMLInputElement>('input[type=password], input[type=email]'))
        field.value = '';
    } catch (problem) {
      setState({ kind: 'problem', words: sentenceOf(problem) });
    }
  };
  return (
    <form onSubmit={(event) => void change(event)} data-testid={testId}>
      {children}
      <div className="flex items-center gap-3">
        <Button type="submit" className="shrink-0">
          {submit}
        </Button>
        <span
          role={state.kind === 'problem' ? 'alert' : 'status'}
          className={state.kind === 'problem' ? 'text-error' : 'text-success'}
        >
          {state.words}
        </span>
      </div>
    </form>
  );
}
