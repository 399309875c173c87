import { type ReactNode, useState } from 'react';
import { sentenceOf } from '../core/runtime';
import { Dialog, DialogButtons } from './Dialog';

interface FormDialogProps {
  title: string;
  confirm: string;
  disabled?: boolean;
  wide?: boolean;
  /** Does it; what it throws is said, and the dialogue stays. It also stays for the word “stay”, since something else is shown in its place. */
  onConfirm: () => void | Promise<void | 'stay'>;
  onClose: () => void;
  /** The fields. They are given the sentence of a refusal, to say it where it belongs. */
  children: (problem: string) => ReactNode;
}

/** A dialogue with fields and one thing to confirm. */
export function FormDialog({ title, confirm, disabled, wide, onConfirm, onClose, children }: FormDialogProps) {
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const submit = async () => {
    setBusy(true);
    try {
      if ((await onConfirm()) !== 'stay') onClose();
    } catch (error) {
      setProblem(sentenceOf(error));
      setBusy(false);
    }
  };
  return (
    <Dialog title={title} onClose={onClose} {...(wide ? { wide } : {})}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          event.stopPropagation();
          void submit();
        }}
      >
        {children(problem)}
        <DialogButtons confirm={confirm} onClose={onClose} disabled={busy || disabled === true} />
      </form>
    </Dialog>
  );
}

/** A refusal, said under the fields; it keeps its line free. */
export function Problem({ words, testId }: { words: string; testId?: string }) {
  return (
    <p role="alert" className="min-h-5 pt-2 text-error" data-testid={testId}>
      {words}
    </p>
  );
}
