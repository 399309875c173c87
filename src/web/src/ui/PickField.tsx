import { t } from '@lingui/core/macro';

/** One of several, in a list that unfolds; undefined where several things differ. */
export function PickField({
  label,
  testId,
  value,
  options,
  onValue,
}: {
  label: string;
  testId: string;
  value: string | undefined;
  options: [string, string][];
  onValue: (value: string) => void;
}) {
  return (
    <label className="mt-2 block text-[13px]">
      {label}
      <select
        data-testid={testId}
        className="select select-sm mt-1 h-10 w-full border-base-300 bg-base-100"
        value={value ?? ''}
        onChange={(event) => onValue(event.target.value)}
      >
        {value === undefined && <option value="">{t`several`}</option>}
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
