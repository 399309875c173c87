interface SegmentsProps<T extends string> {
  label: string;
  options: readonly { value: T; words: string; testId?: string }[];
  value: T;
  onValue: (value: T) => void;
  /** How many stand in a row. */
  columns?: number;
}

/** One of a few, side by side. */
export function Segments<T extends string>({
  label,
  options,
  value,
  onValue,
  columns = options.length,
}: SegmentsProps<T>) {
  return (
    <div
      role="group"
      aria-label={label}
      className="mt-2.5 grid gap-1.5"
      style={{ gridTemplateColumns: `repeat(${columns}, auto)` }}
    >
      {options.map((option) => (
        <Toggle
          on={value === option.value}
          key={option.value}
          data-testid={option.testId}
          onClick={() => onValue(option.value)}
          className="min-w-0 truncate px-1 text-[13px]"
        >
          {option.words}
        </Toggle>
      ))}
    </div>
  );
}

/** A switch with its words. */
export function Switch({
  label,
  on,
  testId,
  onChange,
}: {
  label: string;
  on: boolean;
  testId: string;
  onChange: (on: boolean) => void;
}) {
  return (
    <label className="mt-1 flex min-h-10 cursor-pointer items-center justify-between gap-3 text-[13px]">
      {label}
      <input
        type="checkbox"
        className="toggle toggle-primary toggle-sm shrink-0"
        checked={on}
        data-testid={testId}
        onChange={(event) => onChange(event.target.checked)}
      />
    </label>
  );
}
import { Toggle } from './Button';
