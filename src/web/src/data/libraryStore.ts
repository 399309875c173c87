import { type Core } from '../core/runtime';
import type { OpenDocument } from '../sync/openDocument';
import type { LibraryNode, Tag } from '../model/items';

/** The nodes of one open library, brought up to date by what changed. Everybody who shows the library shares it. */
export class LibraryStore {
  private static readonly stores = new WeakMap<OpenDocument, LibraryStore>();

  readonly nodes = new Map<string, LibraryNode>();
  private version = -1;
  private handle = -1;
  private byParent: Map<string, LibraryNode[]> | undefined;
  private tagList: Tag[] | undefined;
  private tagsById: Map<string, Tag> | undefined;

  private constructor(
    private readonly document: OpenDocument,
    private readonly core: Core,
  ) {}

  static of(document: OpenDocument, core: Core): LibraryStore {
    let store = this.stores.get(document);
    if (!store) this.stores.set(document, (store = new LibraryStore(document, core)));
    store.update();
    return store;
  }

  /** What lies in a folder, in the order people gave it. */
  children(parent: string): LibraryNode[] {
    if (!this.byParent) {
      this.byParent = new Map();
      for (const node of this.nodes.values()) {
        const siblings = this.byParent.get(node.parent);
        if (siblings) siblings.push(node);
        else this.byParent.set(node.parent, [node]);
      }
      for (const siblings of this.byParent.values())
        siblings.sort((a, b) => compare(a.order, b.order) || compare(a.id, b.id));
    }
    return this.byParent.get(parent) ?? [];
  }

  get tags(): Tag[] {
    return (this.tagList ??= JSON.parse(this.core.LibraryBridge.Tags(this.document.handle)) as Tag[]);
  }

  /** The tag that an id stands for. */
  tag(id: string): Tag | undefined {
    this.tagsById ??= new Map(this.tags.flatMap((tag) => tag.ids.map((one) => [one, tag] as const)));
    return this.tagsById.get(id);
  }

  private update(): void {
    const version = this.document.getVersion();
    const { handle } = this.document;
    if (version === this.version && handle === this.handle) return;
    const all = handle !== this.handle;
    const { changed, gone } = JSON.parse(this.core.LibraryBridge.TakeChanges(handle, all)) as {
      changed: LibraryNode[];
      gone: string[];
    };
    if (all) this.nodes.clear();
    for (const node of changed) this.nodes.set(node.id, node);
    for (const id of gone) this.nodes.delete(id);
    [this.version, this.handle] = [version, handle];
    if (changed.length === 0 && gone.length === 0) return;
    this.byParent = undefined;
    this.tagList = undefined;
    this.tagsById = undefined;
  }
}

/** By code units, as Core orders keys. */
export function compare(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
