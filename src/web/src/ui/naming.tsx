import { t } from '@lingui/core/macro';
import { type ReactNode, useId, useState } from 'react';
import { sentenceOf } from '../core/runtime';
import { FormDialog } from './FormDialog';

/** Asks for a name; what Core refuses is said under the field. */
export function NameDialog({
  title,
  confirm,
  name: given = '',
  label,
  onConfirm,
  onClose,
}: {
  title: string;
  confirm: string;
  name?: string;
  label?: string;
  onConfirm: (name: string) => void | Promise<void>;
  onClose: () => void;
}) {
  const [name, setName] = useState(given);
  return (
    <FormDialog title={title} confirm={confirm} onConfirm={() => onConfirm(name)} onClose={onClose}>
      {(problem) => <NameField value={name} onChange={setName} problem={problem} {...(label ? { label } : {})} />}
    </FormDialog>
  );
}

/** Asks before something that cannot be taken back, or that changes much. */
export function ConfirmDialog({
  title,
  children,
  confirm,
  onConfirm,
  onClose,
}: {
  title: string;
  children: ReactNode;
  confirm: string;
  onConfirm: () => void;
  onClose: () => void;
}) {
  return (
    <FormDialog title={title} confirm={confirm} onConfirm={onConfirm} onClose={onClose}>
      {() => children}
    </FormDialog>
  );
}

export function NameField({
  value,
  onChange,
  problem,
  label = t`Name`,
}: {
  value: string;
  onChange: (value: string) => void;
  problem: string;
  label?: string;
}) {
  const id = useId();
  return (
    <>
      <label htmlFor={id} className="mb-1 block font-semibold">
        {label}
      </label>
      <input
        id={id}
        className="field"
        value={value}
        autoFocus
        data-testid="name-input"
        onChange={(event) => onChange(event.target.value)}
      />
      {problem && (
        <p role="alert" className="pt-1.5 text-error" data-testid="name-problem">
          {problem}
        </p>
      )}
    </>
  );
}

/** Does something that Core may refuse; the sentence of the refusal, or an empty string. */
export function attempt(action: () => void): string {
  try {
    action();
    return '';
  } catch (problem) {
    return sentenceOf(problem);
  }
}
