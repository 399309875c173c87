import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { properties, randomNumber } from '../core/runtime';
import type { OpenDocument } from '../sync/openDocument';
import { useDocument, useWorkspace, type Workspace } from '../sync/workspace';

export const root = '00000000-0000-0000-0000-000000000000';

/** A folder or notebook. */
export interface LibraryNode {
  id: string;
  kind: 'folder' | 'notebook';
  parent: string;
  name: string;
  colour: string;
  cover: string;
  binnedAt?: number;
  inBin: boolean;
}

export interface NotebookPage {
  id: string;
  title: string;
  paper: string;
}

export interface ShelfEntry {
  notebook: string;
  pageCount: number;
  writtenAt: string | null;
  people: string[];
  strip: { id: string; number: number; title: string; sequence: number; paper: string }[];
}

export const colours = ['spruce', 'madder', 'sky', 'gold', 'plum', 'lichen'] as const;
export const covers = ['rings', 'dots', 'waves', 'rays', 'lattice'] as const;
export const defaultPaper = 'a4-ruled-710';

const kindNumbers = { folder: 1, notebook: 2 } as const;

/** The library of a space and what can be done to it; everything works without a connection. */
export function useLibrary(space: string): Library | undefined {
  const document = useDocument(space, 'library', space);
  const workspace = useWorkspace();
  const version = document?.getVersion();
  // The version stands for all that the nodes depend on.
  return useMemo(() => (document ? new Library(document, workspace) : undefined), [document, workspace, version]);
}

export class Library {
  readonly nodes: LibraryNode[];

  constructor(
    private readonly document: OpenDocument,
    private readonly workspace: Workspace,
  ) {
    this.nodes = JSON.parse(workspace.core.LibraryBridge.Nodes(document.handle)) as LibraryNode[];
  }

  get space(): string {
    return this.document.space;
  }

  find(id: string): LibraryNode | undefined {
    return this.nodes.find((node) => node.id === id);
  }

  /** What lies in a folder and is not in the bin. */
  inside(parent: string, kind: LibraryNode['kind']): LibraryNode[] {
    return this.nodes.filter((node) => node.parent === parent && node.kind === kind && !node.inBin);
  }

  /** The notebooks in a folder and in all folders inside it. */
  allNotebooks(parent: string): LibraryNode[] {
    return [...this.inside(parent, 'notebook'), ...this.inside(parent, 'folder').flatMap((folder) => this.allNotebooks(folder.id))];
  }

  /** What was put into the bin itself, latest first. */
  bin(): LibraryNode[] {
    return this.nodes.filter((node) => node.binnedAt !== undefined).sort((a, b) => b.binnedAt! - a.binnedAt!);
  }

  /** The folders from the root down to a node's own place. */
  pathOf(id: string): LibraryNode[] {
    const node = this.find(id);
    if (!node) return [];
    const parent = this.find(node.parent);
    return parent ? [...this.pathOf(parent.id), parent] : [];
  }

  newFolder(parent: string, name: string, colour: string): string {
    return this.make('folder', parent, name, colour);
  }

  /** Makes a notebook with its first page. */
  async newNotebook(parent: string, name: string, colour: string, cover: string): Promise<{ notebook: string; page: string }> {
    const notebook = this.make('notebook', parent, name, colour);
    this.set(notebook, properties.cover, cover);
    const page = crypto.randomUUID();
    const { core } = this.workspace;
    const document = await this.workspace.acquire(this.space, 'notebook', notebook);
    document.perform((handle, now) => core.LibraryBridge.AddPage(handle, page, '', defaultPaper, randomNumber(), now));
    this.workspace.release(notebook);
    return { notebook, page };
  }

  rename(id: string, name: string): void {
    this.set(id, properties.name, name.trim());
  }

  /** Throws with a sentence when a folder would be put into itself. */
  move(id: string, parent: string): void {
    const { kind } = this.find(id)!;
    this.document.perform((handle, now) => this.workspace.core.LibraryBridge.Place(handle, id, kindNumbers[kind], parent, randomNumber(), now));
  }

  toBin(id: string): void {
    this.set(id, properties.binned, String(Date.now()));
  }

  /** Puts it back to its old place; when that is in the bin itself, to the head of the library. Says where it went. */
  putBack(id: string): string {
    const node = this.find(id)!;
    const parent = this.find(node.parent);
    this.set(id, properties.binned, '');
    if (!parent?.inBin) return parent ? `Put back into ${parent.name}.` : 'Put back.';
    this.move(id, root);
    return `Its folder ${parent.name} is in the bin, so it now stands at the head of the library.`;
  }

  private make(kind: LibraryNode['kind'], parent: string, name: string, colour: string): string {
    const id = crypto.randomUUID();
    const { core } = this.workspace;
    // The name goes first: a name against the rules then leaves nothing behind.
    this.set(id, properties.name, name.trim());
    this.document.perform((handle, now) => core.LibraryBridge.Place(handle, id, kindNumbers[kind], parent, randomNumber(), now));
    this.set(id, properties.colour, colour);
    return id;
  }

  private set(id: string, property: number, value: string): void {
    this.document.perform((handle, now) => this.workspace.core.LibraryBridge.SetProperty(handle, id, property, value, now));
  }
}

/** What the rows show of each notebook, by notebook. */
export function useShelf(space: string): Map<string, ShelfEntry> {
  const workspace = useWorkspace();
  const { data } = useQuery({
    queryKey: ['shelf', space],
    queryFn: () => workspace.list<ShelfEntry[]>(`/api/spaces/${space}/shelf`),
    enabled: space !== '',
    refetchInterval: 15_000,
    refetchOnMount: 'always',
  });
  return useMemo(() => new Map((data ?? []).map((entry) => [entry.notebook, entry])), [data]);
}
