import type { ReactNode } from 'react';
import { SignButton } from './Button';

interface IconButtonProps {
  /** Its name, shown as a tooltip. */
  label: string;
  icon: ReactNode;
  testId: string;
  disabled?: boolean;
  /** Where there is little room it is higher than wide. */
  narrow?: boolean;
  onPress: () => void;
}

/** A small button that is an icon, large enough for a pen. */
export function IconButton({ label, icon, testId, disabled, narrow, onPress }: IconButtonProps) {
  return (
    <SignButton
      label={label}
      data-testid={testId}
      disabled={disabled}
      onClick={onPress}
      className={narrow ? 'w-8' : ''}
    >
      {icon}
    </SignButton>
  );
}
