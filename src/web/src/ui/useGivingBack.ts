import { useState } from 'react';
import { headingOf } from './focusHeading';

/**
 * Where the focus goes when what lies over the screen is gone: to where it was before; and where that is no longer there, since it was renamed or put away, to the
 * heading of the screen, from where a keyboard goes on.
 */
export function useGivingBack(): () => HTMLElement | boolean {
  const [before] = useState(() => document.activeElement);
  return () => {
    if (before instanceof HTMLElement && before.isConnected && before !== document.body) return before;
    return headingOf(document.querySelector('main')) ?? false;
  };
}
