import type { Core, DocumentKind } from '../core/runtime';

/** How one thing that was done can be taken back, by changes of the document that it was done in. */
export interface Noted {
  space: string;
  kind: DocumentKind;
  id: string;
  changes: Uint8Array;
}

/** Notes how what is done can be taken back, while somebody asks for it. Ink has its own steps: on a page only what is done from outside of it is noted. */
export class Steps {
  private readonly noting: Noted[][] = [];

  constructor(private readonly core: Core) {}

  /** Notes until it is told to stop, and then answers with what was done, in order. */
  begin(): () => Noted[] {
    const noted: Noted[] = [];
    this.noting.push(noted);
    this.core.UndoBridge.TakeNote(true);
    return () => {
      const at = this.noting.indexOf(noted);
      if (at >= 0) this.noting.splice(at, 1);
      this.core.UndoBridge.TakeNote(this.noting.length > 0);
      return noted;
    };
  }

  /** Something was just done in a document. */
  note(space: string, kind: DocumentKind, id: string): void {
    const noted = this.noting.at(-1);
    if (!noted) return;
    const changes = this.core.UndoBridge.Last();
    if (changes.length > 0) noted.push({ space, kind, id, changes });
  }
}
