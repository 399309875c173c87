import { type ReactNode, useId } from 'react';

/** A field of any kind under its label. */
export function Labelled({ label, children }: { label: string; children: (id: string) => ReactNode }) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block font-semibold">
        {label}
      </label>
      {children(id)}
    </div>
  );
}

/** One of several, of which one holds. */
export function Radio({
  name,
  on,
  testId,
  onChoose,
  children,
}: {
  name: string;
  on: boolean;
  testId: string;
  onChoose: () => void;
  children: ReactNode;
}) {
  return (
    <label className="flex min-h-11 items-center gap-3">
      <input
        type="radio"
        name={name}
        className="radio radio-primary radio-sm"
        checked={on}
        data-testid={testId}
        onChange={onChoose}
      />
      <span>{children}</span>
    </label>
  );
}

/** Something that holds or not. */
export function Tick({
  on,
  testId,
  onChange,
  children,
}: {
  on: boolean;
  testId: string;
  onChange: (on: boolean) => void;
  children: ReactNode;
}) {
  return (
    <label className="flex min-h-11 items-center gap-3">
      <input
        type="checkbox"
        className="checkbox checkbox-primary checkbox-sm"
        checked={on}
        data-testid={testId}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span>{children}</span>
    </label>
  );
}
