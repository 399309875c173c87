/** Papers and covers, as they are drawn. */
export interface PaperBridge {
  Draw(paper: string, page: number, notebook: number, notebookId: string, pageId: string): string;
  Sheet(paper: string, page: number): number[];
  StandingOut(colour: number, ground: number): number;
  Cover(design: string, colour: string, name: string): string;
  Choices(): string;
  Read(paper: string): string;
}
