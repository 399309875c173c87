import { useEffect } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { type OpenNotebook, useOpenNotebooks } from '../data/openNotebooks';
import { useLibraries } from '../data/useLibrary';
import { useLetterKeys } from '../data/usePersonal';
import type { LibraryNode } from '../model/items';

/** The notebooks that are open, but for what is in the bin; and which of them is shown. */
export function useOpenTabs(): { shown: (OpenNotebook & { node: LibraryNode })[]; here: string | undefined } {
  const open = useOpenNotebooks();
  const libraries = useLibraries();
  const { pathname } = useLocation();
  const here = pathname.split('/')[3];
  const shown = open.flatMap((one) => {
    const node = libraries?.get(one.space)?.find(one.notebook);
    return node && !node.inBin ? [{ ...one, node }] : [];
  });
  return { shown, here };
}

/** “[” and “]” go to the notebook open before, or next, on whatever screen one is. */
export function useTabKeys(): void {
  const { shown, here } = useOpenTabs();
  const navigate = useNavigate();
  const letters = useLetterKeys();
  useEffect(() => {
    const turn = (event: KeyboardEvent) => {
      if (
        (event.key !== '[' && event.key !== ']') ||
        !letters ||
        event.ctrlKey ||
        event.metaKey ||
        (event.target as Element).closest('input, select, textarea, [contenteditable]')
      )
        return;
      const at = shown.findIndex((one) => one.notebook === here);
      const next = shown[(at + (event.key === ']' ? 1 : -1) + shown.length) % Math.max(1, shown.length)];
      if (!next) return;
      event.preventDefault();
      void navigate(`/page/${next.space}/${next.notebook}/${next.page}`);
    };
    addEventListener('keydown', turn);
    return () => removeEventListener('keydown', turn);
  });
}
