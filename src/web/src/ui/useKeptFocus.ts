import { type RefObject, useEffect } from 'react';
import { focusHeading } from './focusHeading';

/**
 * Keeps the focus in a list: when what has it is drawn anew, as after it was renamed, the focus goes to it again; when it went away, to what stands in its place now, and in an
 * empty list to the heading of the screen.
 * @param attribute What holds the id of each thing, on the element that takes the focus for it.
 */
export function useKeptFocus(held: RefObject<HTMLElement | null> | HTMLElement | null, attribute: string): void {
  useEffect(() => {
    const holder = held && 'current' in held ? held.current : held;
    if (!holder) return;
    const things = () => [...holder.querySelectorAll<HTMLElement>(`[${attribute}]`)];
    let had: { id: string; index: number } | undefined;
    const note = (event: FocusEvent) => {
      const at = event.target as HTMLElement;
      if (!holder.contains(at)) had = undefined;
      else {
        const all = things();
        const index = all.indexOf(ownerOf(at, holder, attribute)!);
        // A field in which a name is changed belongs to what had the focus before it.
        if (index >= 0) had = { id: all[index]!.getAttribute(attribute)!, index };
      }
    };
    const leave = (event: PointerEvent) => {
      if (!holder.contains(event.target as Node)) had = undefined;
    };
    const mend = () => {
      if (!had || document.activeElement !== document.body) return;
      const all = things();
      const again =
        all.find((one) => one.getAttribute(attribute) === had!.id) ?? all[Math.min(had.index, all.length - 1)];
      if (again) again.focus({ preventScroll: true });
      else focusHeading(document.querySelector('main'));
    };
    const observer = new MutationObserver(mend);
    observer.observe(holder, { childList: true, subtree: true });
    document.addEventListener('focusin', note);
    document.addEventListener('pointerdown', leave, true);
    return () => {
      observer.disconnect();
      document.removeEventListener('focusin', note);
      document.removeEventListener('pointerdown', leave, true);
    };
  }, [held, attribute]);
}

/** The thing that an element belongs to: itself, or the only one in the row that it stands in. */
function ownerOf(at: HTMLElement, holder: HTMLElement, attribute: string): HTMLElement | undefined {
  const own = at.closest<HTMLElement>(`[${attribute}]`);
  if (own) return own;
  for (let row = at.parentElement; row && row !== holder; row = row.parentElement) {
    const within = row.querySelectorAll<HTMLElement>(`[${attribute}]`);
    if (within.length > 0) return within.length === 1 ? within[0] : undefined;
  }
  return undefined;
}
