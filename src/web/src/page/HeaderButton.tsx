import type { ReactNode } from 'react';

/** A button of the line above a page: a sign, named by its tooltip. */
export function HeaderButton({
  label,
  icon,
  testId,
  pressed,
  wide,
  onPress,
}: {
  label: string;
  icon: ReactNode;
  testId: string;
  pressed?: boolean;
  /** Not on a phone. */
  wide?: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      aria-pressed={pressed}
      data-testid={testId}
      className={`grid size-11 shrink-0 place-items-center rounded-md hover:bg-base-200 ${pressed ? 'bg-base-200 text-primary' : 'text-quiet'} ${wide ? 'max-sm:hidden' : ''}`}
      onClick={onPress}
    >
      {icon}
    </button>
  );
}
