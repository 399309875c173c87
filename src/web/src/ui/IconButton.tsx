import type { ReactNode } from 'react';

interface IconButtonProps {
  /** Its name, shown as a tooltip. */
  label: string;
  icon: ReactNode;
  testId: string;
  disabled?: boolean;
  /** In a narrow place it is as wide as there is room. */
  narrow?: boolean;
  onPress: () => void;
}

/** A small button that is an icon, large enough for a pen. */
export function IconButton({ label, icon, testId, disabled, narrow, onPress }: IconButtonProps) {
  return (
    <button
      type="button"
      title={label}
      aria-label={label}
      data-testid={testId}
      disabled={disabled}
      onClick={onPress}
      className={`grid shrink-0 place-items-center rounded-md hover:bg-base-300/60 disabled:opacity-35 ${narrow ? 'h-9 min-w-0 grow' : 'size-10'}`}
    >
      {icon}
    </button>
  );
}
