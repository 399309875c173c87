import { useId } from 'react';

/** A labelled text field. */
interface FieldProps {
  label: string;
  name: string;
  type?: string;
  autoComplete?: string;
  hint?: string;
  value?: string;
  inputMode?: 'numeric' | 'text';
  autoFocus?: boolean;
  onValue?: (value: string) => void;
}

export function Field({
  label,
  name,
  type = 'text',
  autoComplete,
  hint,
  value,
  inputMode,
  autoFocus,
  onValue,
}: FieldProps) {
  const id = useId();
  return (
    <div className="mb-4">
      <label htmlFor={id} className="mb-1 flex justify-between">
        <span className="font-semibold">{label}</span>
        {hint && <span className="text-[13px] text-quiet">{hint}</span>}
      </label>
      <input
        id={id}
        name={name}
        type={type}
        autoComplete={autoComplete}
        defaultValue={value}
        required
        inputMode={inputMode}
        autoFocus={autoFocus}
        onChange={(event) => onValue?.(event.target.value)}
        className="field"
      />
    </div>
  );
}
