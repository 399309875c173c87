import type { ComponentProps } from 'react';

type ButtonProps = ComponentProps<'button'>;

const looks = {
  /** The one thing to do here. */
  primary: 'primary-button',
  /** Anything else that can be done. */
  quiet: 'quiet-button',
  /** What hardly anybody wants, beside something that many do. */
  plain: 'plain-button',
};

/** A button with words, as high as a pen or a finger needs it. */
export function Button({ look = 'quiet', className = '', ...rest }: ButtonProps & { look?: keyof typeof looks }) {
  return <button type="button" {...rest} className={`${looks[look]} ${className}`} />;
}

/** A button that is a sign alone; its name is read aloud, and shown when one stays on it. */
export function SignButton({ label, className = '', ...rest }: ButtonProps & { label: string }) {
  return <button type="button" aria-label={label} title={label} {...rest} className={`sign-button ${className}`} />;
}

/** One of several that can be taken: it shows whether it is. */
export function Toggle({ on, className = '', ...rest }: ButtonProps & { on: boolean }) {
  return <button type="button" aria-pressed={on} {...rest} className={`toggle-button ${className}`} />;
}
