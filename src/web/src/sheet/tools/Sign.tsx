import type { Icon } from '@phosphor-icons/react';
import { createElement } from 'react';

/** The sign of a tool. */
export function Sign({ of, className }: { of: Icon; className?: string }) {
  return createElement(of, { size: 20, weight: 'light', ...(className ? { className } : {}) });
}
