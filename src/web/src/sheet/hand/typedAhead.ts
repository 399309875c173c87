import type { Core } from '../../core/runtime';
import type { TextAhead } from '../../sync/ahead';
import type { OpenDocument } from '../../sync/openDocument';

/** What is typed is one step, and others see it, when nothing was typed for so long, ms; or it came to so many letters. */
const restAfter = 900;
const mostLetters = 400;

/** What somebody types into a text of a page: it is seen at once, kept ahead, and an operation when the hand rests. */
export class TypedAhead {
  /** The text, or the cell of a table, that is typed into; empty while there is just a place for one. */
  item = '';
  private handle: number;
  private ahead: TextAhead | undefined;
  private pending: Uint8Array = new Uint8Array();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private letters = 0;

  /** @param rested The hand rests: it is time to {@link end}. */
  constructor(
    private readonly core: Core,
    private readonly page: OpenDocument,
    private readonly rested: () => void,
  ) {
    this.handle = page.handle;
  }

  open(item: string): void {
    this.core.TextBridge.Open(this.page.handle, item);
    this.item = item;
    this.laid();
  }

  /** What is typed into was just laid down. */
  laid(): void {
    this.handle = this.page.handle;
  }

  /** Whether Core knows that somebody types into it, and the page was not taken anew since. */
  get isHeld(): boolean {
    const { core, page, handle } = this;
    return page.handle === handle && core.TextBridge.Typing(handle) !== '';
  }

  /** Core may hold the page anew: what was typed goes on there. False when the text is gone. */
  isThere(): boolean {
    const { core, page } = this;
    if (page.handle !== this.handle && this.item) {
      this.handle = page.handle;
      if (this.pending.length > 0) page.perform((handle, now) => core.TextBridge.Finish(handle, this.pending, now));
      this.pending = new Uint8Array();
      core.TextBridge.Open(page.handle, this.item);
    }
    return !this.item || core.TextBridge.Typing(page.handle) !== '';
  }

  /** Types, by what Core is asked for. */
  type(change: () => void, letters = 1): void {
    const { core, page } = this;
    change();
    this.pending = core.TextBridge.Ahead(page.handle);
    this.ahead ??= page.textAhead();
    this.ahead.keep(this.pending);
    page.retyped(true);
    clearTimeout(this.timer);
    this.timer = setTimeout(this.rested, restAfter);
    this.letters += letters;
  }

  /** So much was typed that it becomes a step without a rest. */
  get isMuch(): boolean {
    return this.letters >= mostLetters;
  }

  /** What was typed becomes an operation, and one step; nothing where the text is gone. */
  end(): boolean {
    clearTimeout(this.timer);
    this.letters = 0;
    if (!this.isThere()) return false;
    const { core, page } = this;
    page.performTogether((handle, now) => core.TextBridge.End(handle, now));
    if (this.pending.length > 0) page.retyped(false);
    this.pending = new Uint8Array();
    this.ahead?.done();
    this.ahead = undefined;
    return true;
  }

  /** Nobody types into it any more. */
  close(): void {
    if (this.page.handle === this.handle) this.core.TextBridge.Close(this.handle);
  }
}
