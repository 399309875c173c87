import { plural, t } from '@lingui/core/macro';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { useSession } from '../server/session';
import type { KeepChoice, KeepMode, Keeping, WantedNotebook } from '../sync/keeping';
import { say } from '../ui/saying';
import type { Library } from './Library';
import { ownPapersOf } from './ownPapers';
import { useLibraries } from './useLibrary';
import { usePersonal } from './usePersonal';
import { useSummaries } from './useShelf';
import { useWorkspace } from './useWorkspace';

/** What was opened within so many days was opened lately. */
export const recentDays = 30;
const dayMilliseconds = 86_400_000;

/** What this device keeps; renders again with every change of it. */
export function useKept(): Keeping {
  const { keeping } = useWorkspace();
  useSyncExternalStore(keeping.subscribe, keeping.getVersion);
  return keeping;
}

/** The notebooks that each way of keeping would keep, those kept for the road not counted. */
export function useKeepable(): (mode: KeepMode) => { space: string; notebook: string }[] {
  const { spaces } = useSession();
  const libraries = useLibraries();
  const personal = usePersonal();
  const [since] = useState(() => Math.floor(Date.now() / dayMilliseconds) - recentDays);
  return useMemo(() => {
    const all = spaces.flatMap(({ id }) =>
      notebooksOf(libraries.get(id)).map((node) => ({ space: id, notebook: node.id })),
    );
    return (mode) => {
      if (mode === 'opened') return [];
      if (mode === 'all') return all;
      const lately = new Set(personal?.often().flatMap((one) => (one.lastDay >= since ? one.notebook : [])));
      return all.filter(({ notebook }) => lately.has(notebook));
    };
  }, [spaces, libraries, personal, since]);
}

/** What a notebook is called in whichever library has it. */
export const nameOf = (libraries: Map<string, Library>, notebook: string): string | undefined =>
  [...libraries.values()].map((library) => library.find(notebook)?.name).find(Boolean);

const notebooksOf = (library: Library | undefined) =>
  [...(library?.nodes.values() ?? [])].filter((node) => node.kind === 'notebook' && !node.inBin);

/** What was chosen; renders again when that is another. */
function useChoice(): KeepChoice {
  const { keeping } = useWorkspace();
  return useSyncExternalStore(keeping.subscribe, () => keeping.choice);
}

/** Whether anything is kept that was not opened. */
export function useKeepsAnything(): boolean {
  const { mode, road } = useChoice();
  return mode !== 'opened' || road.length > 0;
}

/** Keeps on this device what was chosen to be there, and says when what was chosen just now is. */
export function useKeepingNotebooks(): void {
  const { keeping } = useWorkspace();
  const libraries = useLibraries();
  const summaries = useSummaries();
  const keepable = useKeepable();
  const { mode, road } = useChoice();
  const { spaces } = useSession();
  const wanted = useMemo(() => {
    const onRoad = spaces.flatMap(({ id }) =>
      notebooksOf(libraries.get(id)).flatMap((node) =>
        road.includes(node.id) ? [{ space: id, notebook: node.id }] : [],
      ),
    );
    const papers = new Map(spaces.map(({ id }) => [id, papersOf(libraries.get(id))]));
    const others = keepable(mode).filter(({ notebook }) => !road.includes(notebook));
    return [...onRoad, ...others].map(({ space, notebook }): WantedNotebook => {
      const summary = summaries.get(notebook);
      const version = summary ? `${summary.writtenAt} ${summary.size} ${summary.pageCount}` : '';
      return { space, notebook, version, papers: papers.get(space)! };
    });
  }, [spaces, libraries, summaries, keepable, mode, road]);
  const text = useMemo(() => JSON.stringify(wanted), [wanted]);
  // Libraries are new objects after every change of theirs; only what is wanted counts.
  useEffect(() => keeping.want(wanted), [keeping, text]); // eslint-disable-line react-hooks/exhaustive-deps
  useEffect(() => () => keeping.want([]), [keeping]);
  useSayingReady(keeping, libraries);
}

const papersOf = (library: Library | undefined): Map<string, string> =>
  new Map(library ? ownPapersOf(library).map((paper) => [paper.id, paper.source!]) : []);

/** Says when a notebook that was chosen for the road just now is ready. */
function useSayingReady(keeping: Keeping, libraries: Map<string, Library>): void {
  useEffect(() => {
    const sayReady = () => {
      for (const notebook of keeping.awaited) {
        const state = keeping.stateOf(notebook);
        if (!state?.isReady) continue;
        keeping.awaited.delete(notebook);
        const name = nameOf(libraries, notebook) ?? '';
        const pages = plural(state.pages, { one: 'its page is', other: 'all # pages are' });
        say(t`“${name}” is ready for the road: ${pages} on this device.`);
      }
    };
    sayReady();
    return keeping.subscribe(sayReady);
  }, [keeping, libraries]);
}
