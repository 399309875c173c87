import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { properties } from '../core/runtime';
import type { Library } from './Library';
import type { LibraryNode } from '../model/items';
import { useLibraries } from './useLibrary';
import type { FileLook } from '../core/assetBridge';
import { assetPath, type Kept } from '../sync/assets';
import type { Workspace } from '../sync/workspace';
import { mostEdge, redrawn } from './redrawn';
import { useWorkspace } from './useWorkspace';

/** A picture that may be clear is kept as it is up to this many bytes. */
const mostAsItIs = 4 * 1024 * 1024;

/** The media type of a page that was made into a paper. */
export const frozenType = 'application/vnd.calm-quill.frozen-page';

/** What a frozen page looks like, drawn by the server. */
export function frozenPicturePath(space: string, asset: string): string {
  return `${assetPath(space, asset)}/picture`;
}

/** The papers of one's own of a library, by category and name. */
export function ownPapersOf(library: Library): LibraryNode[] {
  return [...library.nodes.values()]
    .filter((node) => node.kind === 'paper' && !node.inBin && node.source)
    .sort((a, b) => (a.category ?? '').localeCompare(b.category ?? '') || a.natural.localeCompare(b.natural));
}

/** The asset of an own paper, given as the paper's text names it; undefined where there is none or it is not a picture. */
export function useOwnPaperSource(space: string | undefined, own: string | undefined): string | undefined {
  const libraries = useLibraries();
  if (!space || !own) return undefined;
  return libraries.get(space)?.find(own)?.source;
}

/** How many pages lie on each own paper of a library. */
export function usePaperUses(space: string): Record<string, number> {
  const workspace = useWorkspace();
  return (
    useQuery({
      queryKey: ['paper-uses', space],
      queryFn: () => workspace.list<Record<string, number>>(`/api/spaces/${space}/paper-uses`),
      refetchOnMount: 'always',
    }).data ?? none
  );
}

const none: Record<string, number> = {};

/** Keeps a picture for a space that lies under pages or is printed: on white, since paper is. Throws a sentence when it is none, or too large. */
export async function keepPaperPicture({ assets }: Workspace, space: string, picture: Blob): Promise<Kept> {
  return assets.keep(space, await redrawn(picture, { type: 'image/jpeg' }));
}

/** Keeps a picture for a space as it is, what is clear in it stays clear; larger than is ever shown it is made smaller. What it says of where it was taken is not kept. */
export async function keepPicture({ core, assets }: Workspace, space: string, picture: Blob): Promise<Kept> {
  const bytes = new Uint8Array(await picture.arrayBuffer());
  const { type, width, height } = JSON.parse(core.AssetBridge.Look(bytes)) as FileLook;
  // A camera's pictures say in what they would lose which side is up: they are drawn anew.
  const mayBeClear = type !== 'image/jpeg';
  const isKeptAsItIs = mayBeClear && width > 0 && Math.max(width, height) <= mostEdge && picture.size <= mostAsItIs;
  const cleaned = isKeptAsItIs ? new Blob([new Uint8Array(core.AssetBridge.Cleaned(bytes))], { type }) : undefined;
  return assets.keep(space, cleaned ?? (await redrawn(picture, { type: mayBeClear ? 'image/webp' : 'image/jpeg' })));
}

/** Keeps a page as it now is, to lie under others. */
export async function freezePage(workspace: Workspace, space: string, page: string, paper: string): Promise<Kept> {
  const document = await workspace.acquire(space, 'page', page);
  try {
    if (!document.isHere) throw new Error(t`This page is not on this device yet. Nothing was kept.`);
    const file = workspace.core.AssetBridge.Freeze(document.handle, paper);
    if (file.length === 0)
      throw new Error(t`This page lies on a paper of your own already. Change that paper instead.`);
    return await workspace.assets.keep(space, new Blob([new Uint8Array(file)]));
  } finally {
    workspace.release(space, 'page', page);
  }
}

/** Makes a paper of one's own in a library, and gives its id. */
export function makeOwnPaper(library: Library, name: string, category: string, asset: string): string {
  return library.newNode('paper', name, { [properties.source]: asset, [properties.category]: category });
}
