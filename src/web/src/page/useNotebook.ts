import { useMemo } from 'react';
import { properties, randomNumber, sentenceOf } from '../core/runtime';
import { defaultPaper, type LibraryNode, type NotebookEntry, nodeKinds, root } from '../library/model';
import { sendJson, Unreachable } from '../session/api';
import type { OpenDocument } from '../sync/openDocument';
import { useDocument, useWorkspace, type Workspace } from '../sync/workspace';

/** The sections and pages of a notebook, and what can be done with them. */
export function useNotebook(space: string, notebook: string): Notebook | undefined {
  const workspace = useWorkspace();
  const document = useDocument(space, 'notebook', notebook);
  const version = document?.getVersion();
  // The version stands for all that the entries depend on.
  return useMemo(() => document && new Notebook(document, workspace), [document, workspace, version]);
}

export class Notebook {
  readonly entries: NotebookEntry[];
  readonly pages: NotebookEntry[];

  constructor(
    private readonly document: OpenDocument,
    private readonly workspace: Workspace,
  ) {
    this.entries = JSON.parse(workspace.core.NotebookBridge.Outline(document.handle, false)) as NotebookEntry[];
    this.pages = this.entries.filter((entry) => entry.kind === 'page');
  }

  get id(): string {
    return this.document.id;
  }

  find(id: string): NotebookEntry | undefined {
    return this.entries.find((entry) => entry.id === id);
  }

  /** The section a page stands in, through pages it is nested in. */
  sectionOf(id: string): NotebookEntry | undefined {
    const parent = this.find(this.find(id)?.parent ?? root);
    return parent?.kind === 'page' ? this.sectionOf(parent.id) : parent;
  }

  /** A new page after another one, beside it; with none, at the end of the notebook. */
  addPageAfter(page: string, paper = defaultPaper): string {
    const before = this.find(page);
    return this.addPage(before?.parent ?? root, before?.id ?? '', before?.paper || paper);
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
    this.document.perform((handle, now) => this.workspace.core.NotebookBridge.Place(handle, id, nodeKinds[kind], parent, after, randomNumber(), now));
  }

  set(id: string, property: number, value: string): void {
    this.document.perform((handle, now) => this.workspace.core.LibraryBridge.SetProperty(handle, id, property, value, now));
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
      if (entry.paper) target.perform((handle, now) => LibraryBridge.SetProperty(handle, entry.id, properties.paper, entry.paper, now));
      if (entry.title) target.perform((handle, now) => LibraryBridge.SetProperty(handle, entry.id, properties.name, entry.title, now));
      if (entry.colour) target.perform((handle, now) => LibraryBridge.SetProperty(handle, entry.id, properties.colour, entry.colour, now));
      for (const tag of entry.tags) target.perform((handle, now) => LibraryBridge.SetTag(handle, entry.id, tag, true, now));
      // It may have been here before.
      target.perform((handle, now) => LibraryBridge.SetProperty(handle, entry.id, properties.movedTo, '', now));
      target.perform((handle, now) => NotebookBridge.Place(handle, entry.id, nodeKinds[entry.kind], parent, '', randomNumber(), now));
    }
    this.workspace.release(other.id);
    // It leaves here only now: whatever happens in between, it is in one of the two.
    for (const entry of moved) this.set(entry.id, properties.movedTo, other.id);
  }

  /** Copies a section or page with what is written on it, by the server. Answers with a sentence when that did not work. */
  async duplicate(id: string): Promise<string> {
    try {
      await this.workspace.outbox.settled();
      await sendJson('POST', `/api/spaces/${this.document.space}/copies`, { node: this.id, entry: id });
      await this.document.catchUp();
      return '';
    } catch (problem) {
      return problem instanceof Unreachable ? 'Duplicating needs a connection. Nothing was copied.' : sentenceOf(problem);
    }
  }

  isWithin(id: string, ancestor: string): boolean {
    if (id === ancestor) return true;
    const parent = this.find(id)?.parent ?? root;
    return parent !== root && this.isWithin(parent, ancestor);
  }
}
