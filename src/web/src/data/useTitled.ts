import { useDeferredValue } from 'react';
import type { Item } from '../model/items';
import { useEntries } from './useEntries';
import { useLibraries } from './useLibrary';
import { usualView } from '../model/libraryView';

const none = new Map<string, never>();
const nobody = new Set<string>();
const leastTyped = 2;

/** Sections or pages of some libraries whose title holds what was typed, once that is more than a letter. */
export function useTitled(spaces: string[], kind: 'section' | 'page', typed: string): Item[] {
  const libraries = useLibraries();
  const text = useDeferredValue(typed.trim());
  const asked = spaces.flatMap((space) => libraries.get(space) ?? []);
  const rule =
    text.length >= leastTyped && asked.length > 0 ? JSON.stringify({ all: [{ kind }, { titled: text }] }) : undefined;
  return (
    useEntries(asked, rule === undefined ? undefined : asked.map(() => rule), usualView, none, nobody)?.items ?? []
  );
}
