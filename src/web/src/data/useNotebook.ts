import { properties, sentenceOf } from '../core/runtime';
import { defaultPaper, type NotebookEntry, nodeKinds, root } from '../model/items';
import { type Paper, writePaper } from '../model/drawing';
import { sendJson, Unreachable } from '../server/api';
import { type Workspace } from '../sync/workspace';
import { useDocument, useWorkspace } from './useWorkspace';
import { copyEntryHere } from '../sync/copyHere';
import { OpenDocument } from '../sync/openDocument';
import { type EntryPlace, sectionAround } from './sections';

/** The sections and pages of a notebook, and what can be done with them. */
export function useNotebook(space: string, notebook: string): Notebook | undefined {
  const workspace = useWorkspace();
  const document = useDocument(space, 'notebook', notebook);
  return document && Notebook.of(document, workspace);
}

/** How one outline becomes the next, as Core tells it. */
interface OutlineChange {
  from: number;
  dropped: number;
  entries: NotebookEntry[];
  shift: number;
}

export type Turning = 'sideways' | 'down' | 'seamless';

/** A moment of a notebook that somebody gave a name: when, in UTC milliseconds. */
export interface Moment {
  id: string;
  at: number;
  name: string;
}

export class Notebook {
  readonly entries: NotebookEntry[];
  readonly pages: NotebookEntry[];
  private readonly byId: Map<string, NotebookEntry>;
  private named: Moment[] | undefined;

  /** The one of each document, as it was made last. */
  private static readonly made = new WeakMap<OpenDocument, Notebook>();

  /** A document as a notebook: the same for all who ask, until it changes. */
  static of(document: OpenDocument, workspace: Workspace): Notebook {
    const { handle } = document;
    const before = Notebook.made.get(document);
    if (before?.asVersion === document.getVersion() && before.asHandle === handle) return before;
    const notebook = new Notebook(document, workspace, before?.asHandle === handle ? before.entries : []);
    Notebook.made.set(document, notebook);
    return notebook;
  }

  private readonly asHandle: number;
  private readonly asVersion: number;

  private constructor(
    private readonly document: OpenDocument,
    private readonly workspace: Workspace,
    before: NotebookEntry[],
  ) {
    this.asHandle = document.handle;
    this.asVersion = document.getVersion();
    const change = JSON.parse(
      workspace.core.NotebookBridge.TakeOutline(document.handle, before.length),
    ) as OutlineChange;
    const behind = before.slice(change.from + change.dropped);
    this.entries = [
      ...before.slice(0, change.from),
      ...change.entries,
      ...(change.shift === 0 ? behind : behind.map((entry) => ({ ...entry, number: entry.number + change.shift }))),
    ];
    this.byId = new Map(this.entries.map((entry) => [entry.id, entry]));
    this.pages = this.entries.filter((entry) => entry.kind === 'page');
  }

  get handle(): number {
    return this.document.handle;
  }

  /** Whether anything of it is on this device, or came from the server. */
  get isHere(): boolean {
    return this.document.isHere;
  }

  /** The notebook that a page or section moved to; empty when it did not. */
  movedTo(id: string): string {
    return this.workspace.core.NotebookBridge.Read(this.handle, id, properties.movedTo);
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

  /** Its moments that have a name, the earliest first. */
  get moments(): Moment[] {
    return (this.named ??= JSON.parse(this.workspace.core.NotebookBridge.Moments(this.handle)) as Moment[]);
  }

  /** Gives a moment a name; throws with a sentence when it cannot be called that. */
  nameMoment(at: number, name: string): void {
    this.document.perform((handle, now) =>
      this.workspace.core.NotebookBridge.NameMoment(handle, crypto.randomUUID(), at, name, now),
    );
  }

  /** Takes the name of a moment off. */
  forgetMoment(id: string): void {
    this.set(id, properties.moment, '');
  }

  /** A planner's settings; empty where it is none. */
  get planner(): string {
    return this.workspace.core.PlannerBridge.Settings(this.handle, this.id);
  }

  /** The paper of new pages in a section, or in a page of it: the section's own or that of one it lies in, else the usual one. */
  paperOf(parent: string, usual = ''): string {
    for (let holder = this.find(parent); holder; holder = this.find(holder.parent))
      if (holder.kind === 'section' && holder.paper) return holder.paper;
    return usual;
  }

  get id(): string {
    return this.document.id;
  }

  find(id: string): NotebookEntry | undefined {
    return this.byId.get(id);
  }

  /** The section a page stands in, through pages it is nested in. */
  sectionOf(id: string): NotebookEntry | undefined {
    return sectionAround((entry) => this.find(entry), id);
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

  /** A new page before another one, on the section's paper, or on the same. */
  addPageBefore(page: string): string {
    const next = this.find(page)!;
    const siblings = this.entries.filter((entry) => entry.parent === next.parent);
    return this.addPage(
      next.parent,
      siblings[siblings.indexOf(next) - 1]?.id ?? 'first',
      this.paperOf(next.parent, next.paper),
    );
  }

  addPage(parent: string, after: string, paper: string): string {
    const id = crypto.randomUUID();
    this.workspace.openNew(this.document.space, 'page', id);
    this.make(id, 'page', parent, after, '', paper || defaultPaper);
    return id;
  }

  addSection(parent: string, title: string): string {
    const id = crypto.randomUUID();
    this.make(id, 'section', parent, '', title.trim(), '');
    return id;
  }

  private make(
    id: string,
    kind: 'section' | 'page',
    parent: string,
    after: string,
    title: string,
    paper: string,
  ): void {
    this.document.performTogether((handle, now) =>
      this.workspace.core.NotebookBridge.Make(handle, id, nodeKinds[kind], parent, after, title, paper, now),
    );
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

  /** Moves sections and pages, with what lies in them, to the end of a place. Answers with how to take it back; throws with a sentence when they cannot go there. */
  async moveTo(ids: string[], place: EntryPlace): Promise<() => Promise<void>> {
    const { space } = this.document;
    if (place.space !== space) return this.moveAcross(ids, place);
    const before = ids.map((id) => ({ id, parent: this.find(id)!.parent, after: this.before(id) }));
    if (place.notebook === this.id) {
      for (const id of ids) this.place(id, this.find(id)!.kind, place.parent, '');
      return async () => {
        const now = await this.workspace.acquire(space, 'notebook', this.id);
        const notebook = Notebook.of(now, this.workspace);
        for (const { id, parent, after } of before) notebook.place(id, notebook.find(id)!.kind, parent, after);
        this.workspace.release(space, 'notebook', this.id);
      };
    }
    await relocate(
      this.workspace,
      space,
      this.id,
      place.notebook,
      ids.map((id) => ({ id, parent: place.parent, after: '' })),
    );
    return () => relocate(this.workspace, space, place.notebook, this.id, before);
  }

  /** Into another library they go as copies, by the server; the originals go into the bin. */
  private async moveAcross(ids: string[], place: EntryPlace): Promise<() => Promise<void>> {
    const copies: string[] = [];
    for (const id of ids) copies.push(await this.askForCopy(id, place, true));
    await this.document.catchUp();
    return async () => {
      const [source, target] = await Promise.all([
        this.workspace.acquire(this.document.space, 'notebook', this.id),
        this.workspace.acquire(place.space, 'notebook', place.notebook),
      ]);
      await target.catchUp();
      for (const id of ids) Notebook.of(source, this.workspace).putBack(id);
      for (const copy of copies) Notebook.of(target, this.workspace).toBin(copy);
      this.workspace.release(this.document.space, 'notebook', this.id);
      this.workspace.release(place.space, 'notebook', place.notebook);
    };
  }

  /** The sibling before an entry; “first” when there is none. */
  private before(id: string): string {
    const siblings = this.entries.filter((entry) => entry.parent === this.find(id)!.parent);
    return siblings[siblings.findIndex((entry) => entry.id === id) - 1]?.id ?? 'first';
  }

  /** Copies a section or page with what is written on it: by the server, or without a connection by this device, as far as it holds it. Answers with a sentence when that did not work. */
  async duplicate(id: string): Promise<string> {
    return this.copy(id);
  }

  /** The same to the end of a place, also in another library. */
  async copyTo(id: string, place: EntryPlace): Promise<string> {
    return this.copy(id, place);
  }

  private askForCopy = async (id: string, place?: EntryPlace, move = false): Promise<string> => {
    await this.workspace.outbox.settled();
    const { copy } = await sendJson<{ copy: string }>('POST', `/api/spaces/${this.document.space}/copies`, {
      node: this.id,
      entry: id,
      move,
      ...(place ? { toSpace: place.space, toNotebook: place.notebook, parent: place.parent } : {}),
    });
    return copy;
  };

  private async copy(id: string, place?: EntryPlace): Promise<string> {
    try {
      try {
        await this.askForCopy(id, place);
        await this.document.catchUp();
      } catch (problem) {
        if (!(problem instanceof Unreachable)) throw problem;
        await copyEntryHere(this.workspace, { space: this.document.space, notebook: this.id }, id, place);
      }
      return '';
    } catch (problem) {
      return sentenceOf(problem);
    }
  }

  /** Takes everything off a page; it can be taken back there. */
  async clear(page: string): Promise<void> {
    await this.onPage(page, (handle, now) => {
      const items = this.workspace.core.HandBridge.AllOpen(handle);
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

  /** Does something to what is written on a page. */
  async onPage(page: string, make: (handle: number, now: number) => Uint8Array): Promise<void> {
    const document = await this.workspace.acquire(this.document.space, 'page', page);
    if (document.perform(make)) this.workspace.steps.note(this.document.space, 'page', page);
    this.workspace.release(this.document.space, 'page', page);
  }

  isWithin(id: string, ancestor: string): boolean {
    if (id === ancestor) return true;
    const parent = this.find(id)?.parent ?? root;
    return parent !== root && this.isWithin(parent, ancestor);
  }
}

/** Takes sections and pages with what lies in them from one notebook of a library to another, in one step. */
async function relocate(
  workspace: Workspace,
  space: string,
  from: string,
  to: string,
  tops: { id: string; parent: string; after: string }[],
): Promise<void> {
  const { NotebookBridge } = workspace.core;
  const [source, target] = await Promise.all([
    workspace.acquire(space, 'notebook', from),
    workspace.acquire(space, 'notebook', to),
  ]);
  try {
    const ids = tops.map((top) => top.id);
    OpenDocument.performAcross([
      [
        target,
        (handle, now) =>
          NotebookBridge.TakeIn(
            handle,
            to,
            source.handle,
            ids,
            tops.map((top) => top.parent),
            tops.map((top) => top.after),
            now,
          ),
      ],
      [source, (handle, now) => NotebookBridge.LetGo(handle, target.handle, to, ids, now)],
    ]);
  } finally {
    workspace.release(space, 'notebook', from);
    workspace.release(space, 'notebook', to);
  }
}
