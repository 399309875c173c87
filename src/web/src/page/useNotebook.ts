import { useMemo } from 'react';
import { properties, sentenceOf } from '../core/runtime';
import { defaultPaper, type LibraryNode, type NotebookEntry, nodeKinds, root } from '../library/model';
import { type Paper, writePaper } from '../papers/drawing';
import { sendJson, Unreachable } from '../session/api';
import type { OpenDocument } from '../sync/openDocument';
import { useDocument, useWorkspace, type Workspace } from '../sync/workspace';
import { allKinds } from './hand/tool';

/** The sections and pages of a notebook, and what can be done with them. */
export function useNotebook(space: string, notebook: string): Notebook | undefined {
  const workspace = useWorkspace();
  const document = useDocument(space, 'notebook', notebook);
  const version = document?.getVersion();
  // The version stands for all that the entries depend on.
  return useMemo(() => document && new Notebook(document, workspace), [document, workspace, version]);
}

export type Turning = 'sideways' | 'down' | 'seamless';

export class Notebook {
  readonly entries: NotebookEntry[];
  readonly pages: NotebookEntry[];
  private readonly byId: Map<string, NotebookEntry>;

  constructor(
    private readonly document: OpenDocument,
    private readonly workspace: Workspace,
  ) {
    this.entries = JSON.parse(workspace.core.NotebookBridge.Outline(document.handle, false)) as NotebookEntry[];
    this.byId = new Map(this.entries.map((entry) => [entry.id, entry]));
    this.pages = this.entries.filter((entry) => entry.kind === 'page');
  }

  get handle(): number {
    return this.document.handle;
  }

  /** Changes with every change of the notebook. */
  get version(): number {
    return this.document.getVersion();
  }

  /** How its pages follow each other. */
  get turning(): Turning {
    const kept = this.workspace.core.NotebookBridge.Read(this.handle, this.id, properties.turning);
    return kept === 'sideways' || kept === 'seamless' ? kept : 'down';
  }

  /** A planner's settings; empty where it is none. */
  get planner(): string {
    return this.workspace.core.PlannerBridge.Settings(this.handle, this.id);
  }

  /** The paper of new pages in a section: the section's own, else the notebook's. */
  paperOf(parent: string, usual = ''): string {
    const holder = this.find(parent);
    return holder?.kind === 'section' ? holder.paper || this.paperOf(holder.parent, usual) : usual;
  }

  get id(): string {
    return this.document.id;
  }

  find(id: string): NotebookEntry | undefined {
    return this.byId.get(id);
  }

  /** The section a page stands in, through pages it is nested in. */
  sectionOf(id: string): NotebookEntry | undefined {
    const parent = this.find(this.find(id)?.parent ?? root);
    return parent?.kind === 'page' ? this.sectionOf(parent.id) : parent;
  }

  /** A new page after another one, beside it; with none, at the end of the notebook. */
  addPageAfter(page: string, paper = defaultPaper): string {
    const before = this.find(page);
    // A section that has its own paper gives it; otherwise the page before does, but for those of a planner.
    const own = this.paperOf(before?.parent ?? root);
    return this.addPage(
      before?.parent ?? root,
      before?.id ?? '',
      own || (before && !before.planner ? before.paper : '') || paper,
    );
  }

  /** A new page before another one, on the same paper. */
  addPageBefore(page: string): string {
    const next = this.find(page)!;
    const siblings = this.entries.filter((entry) => entry.parent === next.parent);
    return this.addPage(next.parent, siblings[siblings.indexOf(next) - 1]?.id ?? 'first', next.paper);
  }

  addPage(parent: string, after: string, paper: string): string {
    const id = crypto.randomUUID();
    this.workspace.made(id);
    this.set(id, properties.paper, paper || defaultPaper);
    this.place(id, 'page', parent, after);
    return id;
  }

  addSection(parent: string, title: string): string {
    const id = crypto.randomUUID();
    this.set(id, properties.name, title.trim());
    this.place(id, 'section', parent, '');
    return id;
  }

  /** Throws with a sentence when it cannot be put there. */
  place(id: string, kind: 'section' | 'page', parent: string, after: string): void {
    this.document.performTogether((handle, now) =>
      this.workspace.core.NotebookBridge.Place(handle, id, nodeKinds[kind], parent, after, now),
    );
  }

  set(id: string, property: number, value: string): void {
    this.document.perform((handle, now) =>
      this.workspace.core.LibraryBridge.SetProperty(handle, id, property, value, now),
    );
  }

  /** Any other change that Core makes. */
  perform(make: (handle: number, now: number) => Uint8Array): void {
    this.document.perform(make);
  }

  /** Changes that belong together. */
  performTogether(make: (handle: number, now: number) => Uint8Array): void {
    this.document.performTogether(make);
  }

  /** Many changes at once; resolves with their number once the device keeps them. */
  performAll(make: (handle: number, now: number) => Uint8Array): Promise<number> {
    return this.document.performAll(make);
  }

  setTag(id: string, tag: string, on: boolean): void {
    this.document.perform((handle, now) => this.workspace.core.LibraryBridge.SetTag(handle, id, tag, on, now));
  }

  toBin(id: string): void {
    this.set(id, properties.binned, String(Date.now()));
  }

  putBack(id: string): void {
    this.set(id, properties.binned, '');
  }

  /** Moves a section or page, with what lies in it, to the end of another notebook of the same library. */
  async moveTo(id: string, other: LibraryNode): Promise<void> {
    const { LibraryBridge, NotebookBridge } = this.workspace.core;
    const moved = this.entries.filter((entry) => this.isWithin(entry.id, id));
    const target = await this.workspace.acquire(this.document.space, 'notebook', other.id);
    for (const entry of moved) {
      const parent = entry.id === id ? root : entry.parent;
      if (entry.paper)
        target.perform((handle, now) =>
          LibraryBridge.SetProperty(handle, entry.id, properties.paper, entry.paper, now),
        );
      if (entry.title)
        target.perform((handle, now) => LibraryBridge.SetProperty(handle, entry.id, properties.name, entry.title, now));
      if (entry.colour)
        target.perform((handle, now) =>
          LibraryBridge.SetProperty(handle, entry.id, properties.colour, entry.colour, now),
        );
      for (const tag of entry.tags)
        target.perform((handle, now) => LibraryBridge.SetTag(handle, entry.id, tag, true, now));
      // It may have been here before.
      target.perform((handle, now) => LibraryBridge.SetProperty(handle, entry.id, properties.movedTo, '', now));
      target.performTogether((handle, now) =>
        NotebookBridge.Place(handle, entry.id, nodeKinds[entry.kind], parent, '', now),
      );
    }
    this.workspace.release(this.document.space, 'notebook', other.id);
    // It leaves here only now: whatever happens in between, it is in one of the two.
    for (const entry of moved) this.set(entry.id, properties.movedTo, other.id);
  }

  /** Copies a section or page with what is written on it, by the server. Answers with a sentence when that did not work. */
  async duplicate(id: string): Promise<string> {
    return this.copy(id, async () => {});
  }

  /** The same into another notebook of the library. */
  async copyTo(id: string, other: LibraryNode): Promise<string> {
    return this.copy(id, async (copy) => new Notebook(this.document, this.workspace).moveTo(copy, other));
  }

  private async copy(id: string, then: (copy: string) => Promise<void>): Promise<string> {
    try {
      await this.workspace.outbox.settled();
      const { copy } = await sendJson<{ copy: string }>('POST', `/api/spaces/${this.document.space}/copies`, {
        node: this.id,
        entry: id,
      });
      await this.document.catchUp();
      await then(copy);
      return '';
    } catch (problem) {
      return problem instanceof Unreachable ? 'Copying needs a connection. Nothing was copied.' : sentenceOf(problem);
    }
  }

  /** Takes everything off a page; it can be taken back there. */
  async clear(page: string): Promise<void> {
    await this.onPage(page, (handle, now) => {
      const items = this.workspace.core.HandBridge.SelectAll(handle, allKinds, '');
      return items.length > 0 ? this.workspace.core.HandBridge.Remove(handle, items, now) : new Uint8Array();
    });
  }

  /** Turns a page with what is on it by a quarter to the right. */
  async turn(page: string): Promise<void> {
    const { core } = this.workspace;
    const text = this.find(page)?.paper || defaultPaper;
    const paper = JSON.parse(core.PaperBridge.Read(text)) as Paper;
    const isFree = paper.size.includes('x');
    // A free size is turned by its measures, a named one by how it lies.
    this.set(
      page,
      properties.paper,
      writePaper(
        isFree
          ? { ...paper, size: `${paper.height}x${paper.width}`, across: false }
          : { ...paper, across: !paper.across },
      ),
    );
    await this.onPage(page, (handle, now) => core.SpotBridge.Turn(handle, paper.height, now));
  }

  private async onPage(page: string, make: (handle: number, now: number) => Uint8Array): Promise<void> {
    const document = await this.workspace.acquire(this.document.space, 'page', page);
    document.perform(make);
    this.workspace.release(this.document.space, 'page', page);
  }

  isWithin(id: string, ancestor: string): boolean {
    if (id === ancestor) return true;
    const parent = this.find(id)?.parent ?? root;
    return parent !== root && this.isWithin(parent, ancestor);
  }
}
