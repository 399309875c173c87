/** Planners and their calendars; and how a web of links is laid out. */
export interface PlannerBridge {
  Preview(settings: string): string;
  Languages(): string;
  Make(
    notebook: number,
    id: string,
    settings: string,
    papers: string[],
    colours: string[],
    random: number,
    now: number,
  ): Uint8Array;
  TakeCalendar(notebook: number, id: string, ids: string[], values: string[], now: number): Uint8Array;
  Taken(): number;
  AddEntry(
    notebook: number,
    id: string,
    entry: string,
    day: string,
    time: string,
    minutes: number,
    title: string,
    now: number,
  ): Uint8Array;
  NoteTitle(notebook: number, id: string, entry: string): string;
  Entries(notebook: number): string;
  Settings(notebook: number, id: string): string;
  PageId(notebook: number, id: string, page: string): string;
  LayWeb(count: number, links: number[], groups: number[]): number[];
}
