import type { ReactNode } from 'react';

/** A button at the side of the sheet. */
export function Side({
  label,
  icon,
  testId,
  disabled,
  onPress,
}: {
  label: string;
  icon: ReactNode;
  testId: string;
  disabled?: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      data-testid={testId}
      disabled={disabled}
      onClick={onPress}
      className="flex h-[50px] w-[58px] flex-col items-center justify-center gap-0.5 rounded-md border border-base-300 bg-base-200 text-xs enabled:hover:border-primary disabled:text-quiet/60"
    >
      {icon}
      {label}
    </button>
  );
}
