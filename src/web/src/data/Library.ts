import { t } from '@lingui/core/macro';
import { properties } from '../core/runtime';
import { sendJson, Unreachable } from '../server/api';
import { copyNodeHere } from '../sync/copyHere';
import type { Waiting } from '../sync/deviceStore';
import { OpenDocument } from '../sync/openDocument';
import type { Workspace } from '../sync/workspace';
import { LibraryStore } from './libraryStore';
import { type LibraryNode, nodeKinds, root, type Tag } from '../model/items';

/** A thing in the bin, and since when. */
export interface BinnedNode extends LibraryNode {
  putAt: number;
}

/** A library at one moment, and what can be done to it. Made anew with every change. */
export class Library {
  readonly version: number;
  private readonly store: LibraryStore;
  // Worked out once for each version, since every screen with the side asks.
  private readonly counts = new Map<string, number>();
  private jotList: LibraryNode[] | undefined;
  private days: number | undefined;

  constructor(
    private readonly document: OpenDocument,
    private readonly workspace: Workspace,
  ) {
    this.version = document.getVersion();
    this.store = LibraryStore.of(document, workspace.core);
  }

  get space(): string {
    return this.document.space;
  }

  get handle(): number {
    return this.document.handle;
  }

  get nodes(): ReadonlyMap<string, LibraryNode> {
    return this.store.nodes;
  }

  find(id: string): LibraryNode | undefined {
    return this.store.nodes.get(id);
  }

  /** What lies in a folder and is not in the bin; jots stand elsewhere. */
  inside(parent: string, kind: LibraryNode['kind']): LibraryNode[] {
    return this.store.children(parent).filter((node) => node.kind === kind && !node.inBin && !node.jot);
  }

  /** The notebooks in a folder and in all folders inside it. */
  allNotebooks(parent: string, into: LibraryNode[] = []): LibraryNode[] {
    into.push(...this.inside(parent, 'notebook'));
    for (const folder of this.inside(parent, 'folder')) this.allNotebooks(folder.id, into);
    return into;
  }

  notebookCount(parent: string): number {
    let count = this.counts.get(parent);
    if (count === undefined) {
      count =
        this.inside(parent, 'notebook').length +
        this.inside(parent, 'folder').reduce((sum, folder) => sum + this.notebookCount(folder.id), 0);
      this.counts.set(parent, count);
    }
    return count;
  }

  jots(): LibraryNode[] {
    return (this.jotList ??= [...this.nodes.values()]
      .filter((node) => node.jot && !node.inBin)
      .sort((a, b) => b.createdAt - a.createdAt));
  }

  lenses(): LibraryNode[] {
    return this.store.children(root).filter((node) => node.kind === 'lens' && !node.inBin);
  }

  /** For how many days the bin keeps things; 0 for ever. */
  get binDays(): number {
    return (this.days ??= Number(this.registers(properties.binDays)[root] ?? 30));
  }

  /**
   * What was put into the bin itself and whose time there is not over, latest first.
   * @param received When the server was told of it, by which its time runs; what it was not told of yet has all its time.
   */
  bin(received: Map<string, number>): BinnedNode[] {
    const days = this.binDays;
    const isOver = (id: string) => days > 0 && Date.now() >= (received.get(id) ?? Infinity) + days * 86_400_000;
    return [...this.nodes.values()]
      .flatMap((node) =>
        node.binnedAt === undefined || isOver(node.id)
          ? []
          : [{ ...node, putAt: received.get(node.id) ?? node.binnedAt }],
      )
      .sort((a, b) => b.putAt - a.putAt);
  }

  /** The folders from the head of the library down to a node's own place. */
  pathOf(id: string): LibraryNode[] {
    const parent = this.find(this.find(id)?.parent ?? root);
    return parent ? [...this.pathOf(parent.id), parent] : [];
  }

  get tags(): Tag[] {
    return this.store.tags;
  }

  /** The tags that some ids stand for, each once. */
  tagsOf(ids: string[]): Tag[] {
    if (ids.length === 0) return noTags;
    return [...new Set(ids.map((id) => this.store.tag(id)).filter((tag) => tag !== undefined))];
  }

  registers(property: number): Record<string, string> {
    return JSON.parse(this.workspace.core.LibraryBridge.Registers(this.handle, property)) as Record<string, string>;
  }

  newFolder(parent: string, name: string, colour: string): string {
    return this.make('folder', parent, name, { [properties.colour]: colour });
  }

  /** Makes a notebook with its first page. */
  newNotebook(parent: string, name: string, look: NotebookLook): { notebook: string; page: string } {
    const [notebook, page] = [crypto.randomUUID(), crypto.randomUUID()];
    const { core } = this.workspace;
    const inside = this.workspace.openNew(this.space, 'notebook', notebook);
    this.workspace.openNew(this.space, 'page', page);
    // One step, and the page first: nobody ever sees the notebook without it.
    OpenDocument.performAcross([
      [inside, (handle, now) => core.NotebookBridge.Make(handle, page, nodeKinds.page, root, '', '', look.paper, now)],
      [this.document, this.making(notebook, 'notebook', parent, name, valuesOf(look))],
    ]);
    return { notebook, page };
  }

  /** Makes a notebook with all that is in it, in one step: nobody ever sees it without. */
  addFilled(
    notebook: string,
    parent: string,
    name: string,
    look: NotebookLook,
    inside: [OpenDocument, (handle: number, now: number) => Uint8Array],
    ink: readonly Waiting[],
  ): void {
    OpenDocument.performAcross(
      [inside, [this.document, this.making(notebook, 'notebook', parent, name, valuesOf(look))]],
      ink,
    );
  }

  /** Makes a notebook without pages. */
  emptyNotebook(parent: string, name: string, look: NotebookLook): string {
    const notebook = this.make('notebook', parent, name, valuesOf(look));
    this.workspace.made(notebook);
    return notebook;
  }

  rename(id: string, name: string): void {
    this.set(id, properties.name, name.trim());
  }

  set(id: string, property: number, value: string): void {
    this.document.perform((handle, now) =>
      this.workspace.core.LibraryBridge.SetProperty(handle, id, property, value, now),
    );
  }

  /** Throws with a sentence when a folder would be put into itself. A jot that is put anywhere is filed. */
  move(id: string, parent: string, after = ''): void {
    const { kind, jot } = this.find(id)!;
    this.document.performTogether((handle, now) =>
      this.workspace.core.LibraryBridge.Place(handle, id, nodeKinds[kind], parent, after, now),
    );
    if (jot) this.set(id, properties.jot, '');
  }

  toBin(id: string): void {
    this.set(id, properties.binned, String(Date.now()));
  }

  /** Takes a thing out of the bin; into its old place unless a folder is given. */
  putBack(id: string, into?: string): void {
    this.set(id, properties.binned, '');
    if (into !== undefined) this.move(id, into);
  }

  /** Erases things from the bin with all that lies in them. */
  erase(ids: string[]): void {
    this.document.performTogether((handle, now) => this.workspace.core.LibraryBridge.Erase(handle, ids, now));
  }

  /** Whether the place a binned thing came from is still there. */
  placeIsThere(id: string): boolean {
    const { parent } = this.find(id)!;
    return parent === root || this.find(parent)?.inBin === false;
  }

  setTag(id: string, tag: string, on: boolean): void {
    this.document.perform((handle, now) => this.workspace.core.LibraryBridge.SetTag(handle, id, tag, on, now));
  }

  /** The tag with a path such as “exam/level 2”; makes what is missing of it. */
  tagAt(path: string): string {
    const { Fold } = this.workspace.core.LibraryBridge;
    let parent = root;
    for (const name of path
      .split('/')
      .map((part) => part.trim())
      .filter(Boolean)) {
      // After a tag was made the store is a new one; ask it, not the list from before.
      const known = LibraryStore.of(this.document, this.workspace.core).tags.find(
        (tag) => tag.parent === parent && Fold(tag.name) === Fold(name),
      );
      parent = known?.id ?? this.make('tag', parent, name, { [properties.colour]: '' });
    }
    if (parent === root) throw new Error(t`A tag needs at least one visible character.`);
    return parent;
  }

  mergeTags(from: string, into: string): void {
    this.document.perform((handle, now) => this.workspace.core.LibraryBridge.MergeTags(handle, from, into, now));
  }

  newLens(name: string, icon: string, rule: string, lensSpace?: string): string {
    return this.make('lens', root, name, {
      [properties.icon]: icon,
      [properties.rule]: rule,
      [properties.lensSpace]: lensSpace ?? '',
    });
  }

  /** Makes something of a kind at the head of the library. */
  newNode(kind: LibraryNode['kind'], name: string, values: Record<number, string>): string {
    return this.make(kind, root, name, values);
  }

  visit(space: string, notebook: string): void {
    this.document.perform((handle, now) => this.workspace.core.LibraryBridge.Visit(handle, space, notebook, now));
  }

  /** Copies a folder or notebook with all that is in it, by the server; with `move`, the original goes into the bin; with a time, as it was then. */
  async copy(
    id: string,
    to: { space: string; parent: string },
    move = false,
    signal?: AbortSignal,
    then?: { at: number; name: string },
  ): Promise<string> {
    await this.workspace.outbox.settled();
    const { copy } = await sendJson<{ copy: string }>(
      'POST',
      `/api/spaces/${this.space}/copies`,
      { node: id, toSpace: to.space, parent: to.parent === root ? null : to.parent, move, ...then },
      signal,
    );
    return copy;
  }

  /** A copy of a folder or notebook with all that is in it, in the same folder: by the server, or without a connection by this device, as far as it holds it. */
  async duplicate(id: string, parent: string, signal: AbortSignal): Promise<void> {
    try {
      await this.copy(id, { space: this.space, parent }, false, signal);
    } catch (problem) {
      if (!(problem instanceof Unreachable)) throw problem;
      await copyNodeHere(this.workspace, this.space, id, parent, signal);
    }
  }

  private make(kind: LibraryNode['kind'], parent: string, name: string, values: Record<number, string>): string {
    const id = crypto.randomUUID();
    this.document.performTogether(this.making(id, kind, parent, name, values));
    return id;
  }

  private making(
    id: string,
    kind: LibraryNode['kind'],
    parent: string,
    name: string,
    values: Record<number, string>,
  ): (handle: number, now: number) => Uint8Array {
    const said = Object.entries(values).filter(([, value]) => value);
    return (handle, now) =>
      this.workspace.core.LibraryBridge.Make(
        handle,
        id,
        nodeKinds[kind],
        parent,
        name.trim(),
        said.map(([property]) => Number(property)),
        said.map(([, value]) => value),
        now,
      );
  }
}

/** What a notebook looks like when it is made. */
export interface NotebookLook {
  colour: string;
  cover: string;
  paper: string;
  jot?: boolean;
  source?: string;
}

const valuesOf = ({ colour, cover, paper, jot = false, source = '' }: NotebookLook): Record<number, string> => ({
  [properties.colour]: colour,
  [properties.cover]: cover,
  [properties.paper]: paper,
  [properties.jot]: jot ? '1' : '',
  [properties.source]: source,
});

const noTags: Tag[] = [];
