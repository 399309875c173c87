import { type RefObject, useEffect, useRef } from 'react';

interface Roving {
  /** What in it takes the focus. */
  items: string;
  /** Which arrows go on and back; in a tree, left and right fold and unfold. */
  way?: 'across' | 'down' | 'both' | 'tree';
  /** Where the focus is at first; else at the first. */
  first?: string;
  /** Folds or unfolds the branch of an item. */
  onToggle?: (item: HTMLElement) => void;
  /** More is there than is drawn: brings the first or last into sight. */
  onEdge?: (last: boolean) => void;
}

const ahead: Record<string, readonly string[]> = {
  across: ['ArrowRight'],
  down: ['ArrowDown'],
  tree: ['ArrowDown'],
  both: ['ArrowRight', 'ArrowDown'],
};
const back: Record<string, readonly string[]> = {
  across: ['ArrowLeft'],
  down: ['ArrowUp'],
  tree: ['ArrowUp'],
  both: ['ArrowLeft', 'ArrowUp'],
};

/**
 * One stop for Tab however many things there are in it; arrows, Home and End go on from thing to thing (WAI-ARIA Authoring Practices, “Managing focus within
 * components using a roving tabindex”).
 */
export function useRoving(
  holder: RefObject<HTMLElement | null>,
  { items, way = 'both', first, onToggle, onEdge }: Roving,
): void {
  const stop = useRef<HTMLElement>(undefined);
  // With every drawing, since what is held may not have been there before.
  useEffect(() => {
    const element = holder.current;
    if (!element) return;
    const all = () => [...element.querySelectorAll<HTMLElement>(items)];
    const settle = () => {
      const now = all();
      const focused = now.find((one) => one === document.activeElement);
      if (focused) stop.current = focused;
      else if (!stop.current || !now.includes(stop.current))
        stop.current = (first ? now.find((one) => one.matches(first)) : undefined) ?? now[0];
      for (const one of now) {
        const index = one === stop.current ? 0 : -1;
        if (one.tabIndex !== index) one.tabIndex = index;
      }
    };
    const key = (event: KeyboardEvent) => {
      if (event.altKey || event.ctrlKey || event.metaKey || event.defaultPrevented) return;
      const now = all();
      const at = now.indexOf(event.target as HTMLElement);
      if (at < 0) return;
      if (ahead[way]!.includes(event.key)) now[at + 1]?.focus();
      else if (back[way]!.includes(event.key)) now[at - 1]?.focus();
      else if (event.key === 'Home' || event.key === 'End') {
        const isEnd = event.key === 'End';
        onEdge?.(isEnd);
        // What was not drawn until now is there after the next frame.
        requestAnimationFrame(() => (isEnd ? all().at(-1) : all()[0])?.focus());
      } else if (way === 'tree' && (event.key === 'ArrowRight' || event.key === 'ArrowLeft'))
        intoOrOut(now, at, event.key === 'ArrowRight', onToggle);
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
    settle();
    const observer = new MutationObserver(settle);
    observer.observe(element, { childList: true, subtree: true });
    element.addEventListener('focusin', settle);
    element.addEventListener('keydown', key);
    return () => {
      observer.disconnect();
      element.removeEventListener('focusin', settle);
      element.removeEventListener('keydown', key);
    };
  });
}

/** Right unfolds, or goes to the first within; left folds, or goes to what it lies in. */
function intoOrOut(
  items: HTMLElement[],
  at: number,
  into: boolean,
  onToggle: ((item: HTMLElement) => void) | undefined,
): void {
  const node = (item: HTMLElement | undefined) => item?.closest('[role=treeitem]');
  const level = (item: HTMLElement | undefined) => Number(node(item)?.getAttribute('aria-level') ?? 0);
  const expanded = node(items[at])?.getAttribute('aria-expanded');
  if (expanded === (into ? 'false' : 'true')) onToggle?.(items[at]!);
  else if (into) {
    if (level(items[at + 1]) > level(items[at])) items[at + 1]!.focus();
  } else
    items
      .slice(0, at)
      .findLast((one) => level(one) < level(items[at]))
      ?.focus();
}
