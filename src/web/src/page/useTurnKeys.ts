import { useEffect } from 'react';

interface TurnKeys {
  active: boolean;
  /** The number of the page that is shown, from 0, and of all there are. */
  index: number;
  count: number;
  go: (index: number) => void;
  /** Makes a page after this one; undefined where that may not be. */
  add: (() => void) | undefined;
}

/** Where these keys are for the thing itself. */
const ownKeys =
  'input, select, textarea, [contenteditable], [role=dialog], [role=menu], [role=listbox], [role=tree], [role=slider], [role=tablist], [data-spot], [data-testid=guide-body], [data-testid=guide-end]';
const movable = '[data-testid=selection], [data-testid=guide]';
/** What Space presses. */
const pressable = 'button, a, summary, [role=button]';

/** Keys that turn pages: PageUp and PageDown, left and right, Home and End, and Space, with Shift back. Ctrl+PageDown on the last page makes one. */
export function useTurnKeys({ active, index, count, go, add }: TurnKeys): void {
  useEffect(() => {
    if (!active) return;
    const press = (event: KeyboardEvent) => {
      const at = event.target as Element;
      if (event.defaultPrevented || event.altKey || event.metaKey || at.closest(ownKeys)) return;
      const last = count - 1;
      if (event.key === 'PageDown' && event.ctrlKey && index === last) return add?.();
      if (event.ctrlKey) return;
      const to = {
        PageDown: index + 1,
        PageUp: index - 1,
        ArrowRight: index + 1,
        ArrowLeft: index - 1,
        Home: 0,
        End: last,
      }[event.key];
      if (to === undefined || to === index || to < 0 || to > last) return;
      // Arrows move what is selected, or the ruler.
      if (event.key.startsWith('Arrow') && document.querySelector(movable)) return;
      event.preventDefault();
      go(to);
    };
    // Space held takes the sheet along; pressed and let go of at once, with nothing done meanwhile, it turns the page.
    let began = 0;
    let used = false;
    const use = () => (used = true);
    const space = (event: KeyboardEvent) => {
      const at = event.target as Element;
      if (event.key !== ' ' || event.ctrlKey || at.closest(ownKeys) || at.closest(pressable)) return;
      if (event.type === 'keydown') {
        if (event.repeat) return;
        began = event.timeStamp;
        used = false;
        return;
      }
      const to = index + (event.shiftKey ? -1 : 1);
      if (!used && event.timeStamp - began < turnWithin && to >= 0 && to < count) go(to);
    };
    addEventListener('keydown', press);
    addEventListener('keydown', space);
    addEventListener('keyup', space);
    addEventListener('pointerdown', use, true);
    return () => {
      removeEventListener('keydown', press);
      removeEventListener('keydown', space);
      removeEventListener('keyup', space);
      removeEventListener('pointerdown', use, true);
    };
  });
}

/** A press of Space that is longer was meant to hold the sheet, ms. */
const turnWithin = 400;
