import type { ReactNode } from 'react';

const leftOut = { phone: 'max-sm:hidden', narrow: 'max-sm:hidden @max-2xl:hidden' };

/** A button of the line above a page: a sign, named by its tooltip. */
export function HeaderButton({
  label,
  icon,
  testId,
  pressed,
  without,
  onPress,
}: {
  label: string;
  icon: ReactNode;
  testId: string;
  pressed?: boolean;
  /** Where it is left out: on a phone, or wherever the line is narrow, as beside another page. */
  without?: 'phone' | 'narrow';
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      aria-pressed={pressed}
      data-testid={testId}
      className={`grid size-11 shrink-0 place-items-center rounded-md hover:bg-base-200 ${pressed ? 'bg-base-200 text-primary' : 'text-quiet'} ${without ? leftOut[without] : ''}`}
      onClick={onPress}
    >
      {icon}
    </button>
  );
}
