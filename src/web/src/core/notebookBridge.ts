/** Sections and pages of a notebook. */
export interface NotebookBridge {
  Outline(notebook: number, withBinned: boolean): string;
  TakeOutline(notebook: number, had: number): string;
  Place(notebook: number, entry: string, kind: number, parent: string, after: string, now: number): Uint8Array;
  Make(
    notebook: number,
    entry: string,
    kind: number,
    parent: string,
    after: string,
    title: string,
    paper: string,
    now: number,
  ): Uint8Array;
  TakeIn(
    notebook: number,
    id: string,
    from: number,
    entries: string[],
    parents: string[],
    afters: string[],
    now: number,
  ): Uint8Array;
  Copy(
    target: number,
    source: number,
    entry: string,
    parent: string,
    withTags: boolean,
    seed: string,
    now: number,
  ): Uint8Array;
  CopyWhole(
    target: number,
    to: string,
    source: number,
    from: string,
    withTags: boolean,
    seed: string,
    now: number,
  ): Uint8Array;
  CopiedPages(source: number, entry: string, from: string, to: string, seed: string): string[];
  LetGo(from: number, notebook: number, id: string, entries: string[], now: number): Uint8Array;
  PlaceIsThere(notebook: number, entry: string): boolean;
  Erase(notebook: number, entries: string[], now: number): Uint8Array;
  TodayPage(notebook: number, id: string, day: string): string;
  Read(notebook: number, target: string, property: number): string;
  Moments(notebook: number): string;
  NameMoment(notebook: number, id: string, at: number, name: string, now: number): Uint8Array;
}
