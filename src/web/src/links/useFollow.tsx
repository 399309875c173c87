import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { properties } from '../core/runtime';
import { lastPageIn } from '../data/openNotebooks';
import type { NotebookEntry } from '../model/items';
import { useLibraries } from '../data/useLibrary';
import { useSession } from '../server/session';
import { useWorkspace } from '../data/useWorkspace';
import { Dialog } from '../ui/Dialog';
import { pathOf, readTarget, type Target, writeTarget } from '../model/target';

/** A page may have moved again and again; more often than this it is not followed. */
const mostHops = 20;
/** ms. */
const mostWait = 1_500;

type Asking =
  | { what: 'web'; address: string; title: string }
  | { what: 'binned'; target: Exclude<Target, { kind: 'web' }>; name: string; restore: () => Promise<void> }
  | { what: 'nothing'; sentence: string };

/** Goes where a link leads. What lies in the bin is said to be there, with the way to put it back; of what one may not see nothing is told. */
export function useFollow(): {
  follow: (target: string, title?: string) => Promise<void>;
  asking: React.ReactNode;
} {
  const navigate = useNavigate();
  const workspace = useWorkspace();
  const libraries = useLibraries();
  const { spaces } = useSession();
  const [asking, setAsking] = useState<Asking>();

  const follow = async (text: string, title = '', hops = 0): Promise<void> => {
    const target = readTarget(text);
    if (target.kind === 'web') return setAsking({ what: 'web', address: target.address, title });
    const library = libraries.get(target.space);
    if (!library || !spaces.some((space) => space.id === target.space))
      return setAsking({ what: 'nothing', sentence: t`This leads to something that you may not see.` });
    const node = library.find(target.notebook);
    if (!node) return setAsking({ what: 'nothing', sentence: t`What this leads to is no longer here.` });
    if (node.inBin)
      return setAsking({
        what: 'binned',
        target,
        name: t`The notebook “${node.name}”`,
        restore: async () => library.putBack(target.notebook),
      });
    const document = await workspace.acquire(target.space, 'notebook', target.notebook);
    // What others did with it lately is heard of first, where that takes no longer than a moment.
    await Promise.race([document.catchUp(), new Promise((resolve) => setTimeout(resolve, mostWait))]);
    const entries = JSON.parse(workspace.core.NotebookBridge.Outline(document.handle, true)) as NotebookEntry[];
    const wanted = target.kind === 'section' ? target.section : target.kind === 'notebook' ? '' : target.page;
    const entry = entries.find((one) => one.id === wanted);
    const isWithin = (entry: NotebookEntry, id: string): boolean => {
      for (let at: NotebookEntry | undefined = entry; at; at = entries.find((other) => other.id === at!.parent))
        if (at.id === id) return true;
      return false;
    };
    const first =
      target.kind === 'section'
        ? entries.find((one) => one.kind === 'page' && !one.inBin && isWithin(one, wanted))
        : undefined;
    const movedTo = wanted && workspace.core.NotebookBridge.Read(document.handle, wanted, properties.movedTo);
    const putBack = async () => {
      const now = await workspace.acquire(target.space, 'notebook', target.notebook);
      // The thing itself, or what it lies in.
      for (let one = entry; one; one = entries.find((other) => other.id === one!.parent))
        now.perform((handle, at) =>
          workspace.core.LibraryBridge.SetProperty(handle, one!.id, properties.binned, '', at),
        );
      workspace.release(target.space, 'notebook', target.notebook);
    };
    workspace.release(target.space, 'notebook', target.notebook);
    // The id is what a link means: what moved to another notebook is followed there.
    if (movedTo && hops < mostHops)
      return follow(writeTarget({ ...target, notebook: movedTo } as Target), title, hops + 1);
    if (wanted && !entry)
      return setAsking({ what: 'nothing', sentence: t`The page that this leads to is no longer in its notebook.` });
    if (entry?.inBin)
      return setAsking({
        what: 'binned',
        target,
        name: entry.title ? `“${entry.title}”` : t`The page`,
        restore: putBack,
      });
    if (target.kind === 'section')
      return void (await navigate(
        pathOf({ kind: 'page', space: target.space, notebook: target.notebook, page: first?.id ?? '' }),
      ));
    if (target.kind === 'notebook')
      return void (await navigate(
        pathOf({ kind: 'page', space: target.space, notebook: target.notebook, page: lastPageIn(target.notebook) }),
      ));
    await navigate(pathOf(target));
  };

  const close = () => setAsking(undefined);
  return {
    follow,
    asking: asking && (
      <Dialog
        title={
          asking.what === 'web'
            ? asking.title || t`A link to the web`
            : asking.what === 'binned'
              ? t`It lies in the bin`
              : t`This link leads nowhere`
        }
        onClose={close}
      >
        {asking.what === 'web' && <p className="[overflow-wrap:anywhere]">{asking.address}</p>}
        {asking.what === 'binned' && (
          <p>{t`${asking.name} was put into the bin. It can be put back into its place.`}</p>
        )}
        {asking.what === 'nothing' && <p data-testid="leads-nowhere">{asking.sentence}</p>}
        <div className="mt-6 flex justify-end gap-2">
          <Button onClick={close}>{asking.what === 'nothing' ? t`Close` : t`Cancel`}</Button>
          {asking.what === 'web' && (
            <a
              href={asking.address}
              target="_blank"
              rel="noopener noreferrer"
              className="btn btn-primary h-11 min-h-11"
              onClick={close}
            >{t`Open it`}</a>
          )}
          {asking.what === 'binned' && (
            <Button
              look="primary"
              data-testid="restore-target"
              onClick={() => {
                close();
                void asking.restore().then(() => navigate(pathOf(asking.target)));
              }}
            >{t`Put it back and go there`}</Button>
          )}
        </div>
      </Dialog>
    ),
  };
}
