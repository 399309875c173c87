import { useEffect, useRef } from 'react';
import { documentKinds } from '../core/runtime';
import { forgetPainted } from '../pictures/painted';
import { useSession } from '../session/session';
import { useWorkspace, type Workspace } from '../sync/workspace';
import type { NotebookEntry, ShownPage } from './model';
import { useLocksOf } from './useShelf';

/** Takes what this device holds of locked notebooks off it, whenever a lock is found shut. */
export function useForgetting(): void {
  const { spaces } = useSession();
  const workspace = useWorkspace();
  const locks = useLocksOf(spaces);
  const forgotten = useRef(new Set<string>());
  useEffect(() => {
    for (const [notebook, openUntil] of locks) {
      if (openUntil !== null) forgotten.current.delete(notebook);
      else if (!forgotten.current.has(notebook)) {
        forgotten.current.add(notebook);
        void forget(workspace, spaces.map((space) => space.id), notebook);
      }
    }
  }, [locks, workspace, spaces]);
}

/** Documents, the strip, and pictures of pages. What still waits to be sent stays until it is. */
async function forget({ core, store }: Workspace, spaces: string[], notebook: string): Promise<void> {
  const strip = ((await store.answer(`strip ${notebook}`)) as ShownPage[] | undefined) ?? [];
  const handle = core.DocumentBridge.Open(documentKinds.notebook);
  for (const batch of (await store.load(notebook)).batches) core.DocumentBridge.Apply(handle, batch);
  const entries = JSON.parse(core.NotebookBridge.Outline(handle, true)) as NotebookEntry[];
  core.DocumentBridge.Close(handle);
  const pages = [...new Set([...strip, ...entries].map((page) => page.id))];
  await store.forget([notebook, ...pages]);
  for (const answer of [`strip ${notebook}`, ...spaces.flatMap((space) => ['spots', 'pages'].map((list) => `/api/spaces/${space}/notebooks/${notebook}/${list}`))]) await store.forgetAnswer(answer);
  const marks = (await store.answer('/api/follow-ups')) as { notebook: string }[] | undefined;
  if (marks) await store.keepAnswer('/api/follow-ups', marks.filter((mark) => mark.notebook !== notebook));
  forgetPainted(pages);
  const pictures = await caches.open('thumbnails');
  for (const request of await pictures.keys()) if (pages.some((page) => request.url.includes(page))) await pictures.delete(request);
}
