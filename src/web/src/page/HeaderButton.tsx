import type { ReactNode } from 'react';
import { SignButton } from '../ui/Button';

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
    <SignButton
      label={label}
      aria-pressed={pressed}
      data-testid={testId}
      className={without ? leftOut[without] : ''}
      onClick={onPress}
    >
      {icon}
    </SignButton>
  );
}
