/** Folders, notebooks, tags, lenses, and what a person keeps of them. */
export interface LibraryBridge {
  TakeChanges(library: number, all: boolean): string;
  Tags(library: number): string;
  Registers(library: number, property: number): string;
  Often(library: number): string;
  Place(library: number, node: string, kind: number, parent: string, after: string, now: number): Uint8Array;
  Make(
    library: number,
    node: string,
    kind: number,
    parent: string,
    name: string,
    properties: number[],
    values: string[],
    now: number,
  ): Uint8Array;
  Copy(library: number, node: string, parent: string, seed: string, now: number): Uint8Array;
  CopiedNotebooks(library: number, node: string, parent: string, seed: string): string[];
  Erase(library: number, nodes: string[], now: number): Uint8Array;
  SetProperty(document: number, target: string, property: number, value: string, now: number): Uint8Array;
  SetTag(document: number, target: string, tag: string, on: boolean, now: number): Uint8Array;
  MergeTags(library: number, from: string, into: string, now: number): Uint8Array;
  Visit(library: number, space: string, notebook: string, now: number): Uint8Array;
  Ask(
    library: number,
    rule: string,
    facts: string,
    notebooks: number[],
    notebookIds: string[],
    now: number,
    clock: number[],
  ): string;
  Fold(text: string): string;
  /** Why something may not be called this, as Core tells it; empty where it may. */
  NameProblem(name: string): string;
}
