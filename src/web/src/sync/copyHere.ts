import { plural, t } from '@lingui/core/macro';
import { addressOf } from './address';
import { unframed } from './frames';
import type { Waiting } from './deviceStore';
import { OpenDocument } from './openDocument';
import type { Workspace } from './workspace';
import { Cancelled } from '../server/api';

/** A notebook, and the space it is in. */
interface NotebookAt {
  space: string;
  notebook: string;
}

/** Something of what is to be copied was never on this device. */
const notAllHere = (missing: number) =>
  new Error(
    plural(missing, {
      one: 'Without a connection a copy is made from what this device holds, and one page of it is not here. Nothing was copied.',
      other:
        'Without a connection a copy is made from what this device holds, and # pages of it are not here. Nothing was copied.',
    }),
  );

/** Copies a section or page without the server, from what this device holds; without a place to go to, beside its original. Throws with a sentence when it cannot be. */
export async function copyEntryHere(
  workspace: Workspace,
  from: NotebookAt,
  entry: string,
  place: (NotebookAt & { parent: string }) | undefined,
): Promise<void> {
  const { NotebookBridge } = workspace.core;
  const into = place ?? from;
  const seed = crypto.randomUUID();
  await withDocuments(workspace, [from, into].map(notebookOf), async ([source, target]) => {
    if (!target!.isHere) throw new Error(t`The notebook to copy into is not on this device. Nothing was copied.`);
    const pages = () => NotebookBridge.CopiedPages(source!.handle, entry, from.notebook, '', seed);
    const before = pages();
    const ink = await inkOf(workspace, from.space, into.space, before);
    mustBeSame(before, pages());
    OpenDocument.performAcross(
      [
        [
          target!,
          (handle, now) =>
            NotebookBridge.Copy(
              handle,
              source!.handle,
              entry,
              place?.parent ?? '',
              from.space === into.space,
              seed,
              now,
            ),
        ],
      ],
      ink,
    );
  });
}

/** The same for a folder or notebook with all that is in it, to the end of a folder of its library. */
export async function copyNodeHere(
  workspace: Workspace,
  space: string,
  node: string,
  parent: string,
  signal?: AbortSignal,
): Promise<void> {
  const { LibraryBridge, NotebookBridge } = workspace.core;
  const seed = crypto.randomUUID();
  await withDocuments(workspace, [{ space, kind: 'library', id: space }], async ([library]) => {
    const notebooks = pairsOf(LibraryBridge.CopiedNotebooks(library!.handle, node, parent, seed));
    for (const [, to] of notebooks) workspace.made(to);
    const documents = notebooks.flatMap(([from, to]) => [from, to].map((id) => notebookOf({ space, notebook: id })));
    await withDocuments(workspace, documents, async (opened) => {
      const each = notebooks.map(([from, to], i) => ({
        from,
        to,
        source: opened[2 * i]!,
        target: opened[2 * i + 1]!,
        seed: crypto.randomUUID(),
      }));
      const gone = each.filter(({ source }) => !source.isHere).length;
      if (gone > 0)
        throw new Error(
          plural(gone, {
            one: 'Without a connection a copy is made from what this device holds, and a notebook of it was never opened here. Nothing was copied.',
            other:
              'Without a connection a copy is made from what this device holds, and # notebooks of it were never opened here. Nothing was copied.',
          }),
        );
      const pages = () =>
        each.flatMap(({ from, to, source, seed: own }) => NotebookBridge.CopiedPages(source.handle, '', from, to, own));
      const before = pages();
      const ink = await inkOf(workspace, space, space, before, signal);
      mustBeSame(before, pages());
      OpenDocument.performAcross(
        [
          [library!, (handle, now) => LibraryBridge.Copy(handle, node, parent, seed, now)],
          ...each.map(({ from, to, source, target, seed: own }): [OpenDocument, typeof make] => {
            const make = (handle: number, now: number) =>
              NotebookBridge.CopyWhole(handle, to, source.handle, from, true, own, now);
            return [target, make];
          }),
        ],
        ink,
      );
    });
  });
}

/** What is written on pages, as it waits for their copies. All of them must be on this device. */
async function inkOf(
  workspace: Workspace,
  from: string,
  into: string,
  ids: string[],
  signal?: AbortSignal,
): Promise<Waiting[]> {
  const pages = pairsOf(ids);
  const here = await Promise.all(pages.map(([page]) => workspace.store.isWhole(addressOf(from, 'page', page))));
  const missing = here.filter((one) => !one).length;
  if (missing > 0) throw notAllHere(missing);
  const ink: Waiting[] = [];
  for (const [page, copy] of pages) {
    if (signal?.aborted) throw new Cancelled();
    await withDocuments(workspace, [{ space: from, kind: 'page', id: page }], async ([original]) => {
      const document = addressOf(into, 'page', copy);
      const named = workspace.core.ThingBridge.AssetsIn(original!.handle);
      // What they show comes along, when it can: the copy stands without waiting for it.
      void workspace.assets.carry(named, from, into).catch(() => {});
      for (const bytes of unframed(workspace.core.PageBridge.Copy(original!.handle, Date.now())))
        ink.push({ space: into, kind: 'page', document, bytes });
    });
    await workspace.store.keepEmpty(addressOf(into, 'page', copy));
  }
  return ink;
}

type DocumentAt = Pick<OpenDocument, 'space' | 'kind' | 'id'>;

const notebookOf = ({ space, notebook }: NotebookAt): DocumentAt => ({ space, kind: 'notebook', id: notebook });

async function withDocuments(
  workspace: Workspace,
  documents: readonly DocumentAt[],
  work: (opened: OpenDocument[]) => Promise<void>,
): Promise<void> {
  const opened = await Promise.all(documents.map(({ space, kind, id }) => workspace.acquire(space, kind, id)));
  try {
    await work(opened);
  } finally {
    for (const { space, kind, id } of documents) workspace.release(space, kind, id);
  }
}

function mustBeSame(before: string[], now: string[]): void {
  if (before.join() !== now.join())
    throw new Error(t`It was changed while it was copied. Nothing was copied; try it again.`);
}

function pairsOf(ids: string[]): [string, string][] {
  return ids.flatMap((id, i): [string, string][] => (i % 2 === 0 ? [[id, ids[i + 1]!]] : []));
}
