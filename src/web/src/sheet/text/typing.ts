import type { Seen } from '../../core/seenBridge';
import { type Core, sentenceOf } from '../../core/runtime';
import { addSpot } from '../../data/spots';
import { bringFonts, onFonts } from '../../letters/fonts';
import type { OpenDocument } from '../../sync/openDocument';
import { say } from '../../ui/saying';
import { shapeToType, type TypingPlace } from '../hand/things';
import { TypedAhead } from '../hand/typedAhead';
import type { View } from '../ink/view';
import { cellsIn } from './cells';
import { mostPasted, readHtml } from './pasted';
import { TableTyping } from './tableTyping';
import { type Looks, type Told, type Trait, wholeOf } from './told';
import { UnderText } from './underText';

/** How what is begun anew is to look. */
export type FirstLooks = Partial<Record<Trait, string>>;

export interface TypingAround {
  core: Core;
  page: OpenDocument;
  paper: string;
  layer: () => string;
  looks: () => FirstLooks;
  /** Whether what is begun anew stands on the paper's lines. */
  isOnLines: () => boolean;
  view: () => View;
  /** Tells others where one types; with nothing that one does not any more. */
  tellCaret: (item: string, from: string, to: string) => void;
  undo: () => void;
  redo: () => void;
  /** What is typed into, or what is selected in it, is another now. */
  changed: () => void;
  /** Whoever types is done, or the text is gone: somebody else removed it, or it was taken back. */
  leave: () => void;
}

/** Others are told where one types at least so often, ms: whoever is not heard of for longer types no more. */
const caretEvery = 3_000;
/** A press so near a text means it, pixels. */
const reach = 6;
/** A text is this far from the sheet's edge at least before it is begun at a line of the paper, 0.01 mm. */
const leastWidth = 1500;
const firstLine = 450;
/** The first line of words in a shape stands so far below its middle, 0.01 mm. */
const halfLine = 130;

/** The look that was kept last, on whatever page. */
let keptLook: Partial<Looks> | undefined;
/** What of a look goes along. */
const kept = new Set<Trait>([
  'bold',
  'italic',
  'underline',
  'struck',
  'shift',
  'size',
  'family',
  'colour',
  'marker',
  'style',
  'align',
  'leading',
]);

/** Somebody at a text on a page: takes what the keyboard says to Core, and shows the caret and what is selected. Lives outside React, since it works at the keyboard's speed. */
export class Typing {
  told: Told | undefined;
  /** The table that one types in, where it is one. */
  readonly table = new TableTyping(this);
  private readonly under: UnderText;
  private readonly ends: (() => void)[] = [];
  private readonly typed: TypedAhead;
  private readonly telling: ReturnType<typeof setInterval>;
  /** Where a method of input, such as one for Japanese, is at work. */
  private composing: { from: number; to: number } | undefined;
  /** Whether the browser's text is being made anew: what is selected in it then means nothing. */
  private isMaking = false;
  isBackward = false;
  private readonly begins: { x: number; y: number; width: number; ruling: number; shape?: string } | undefined;

  /** @param root The element that the browser's own text lies in. */
  constructor(
    private readonly root: HTMLElement,
    private readonly around: TypingAround,
    place: TypingPlace,
  ) {
    this.under = new UnderText(root);
    const { core, page, view } = around;
    this.typed = new TypedAhead(core, page, () => this.end());
    const isPress = place.width === undefined && !place.item && !place.shape;
    const text = isPress ? core.TextBridge.At(page.handle, place.x, place.y, reach / view().scale) : '';
    const shape =
      place.shape ??
      (isPress && !text ? shapeToType(core.DiagramBridge.ShapeAt(page.handle, place.x, place.y)) : undefined);
    const at = place.item ?? (text || (shape?.words ?? ''));
    if (at) core.TextBridge.Open(page.handle, at);
    // At its end, where one did not press into it.
    if (text) {
      const letter = core.TextBridge.LetterAt(page.handle, place.x, place.y);
      core.TextBridge.Select(page.handle, letter, letter);
    } else if (!at)
      this.begins = shape
        ? { x: shape.x, y: shape.y + halfLine, width: leastWidth, ruling: 0, shape: shape.id }
        : this.placeOf(place);
    this.telling = setInterval(() => this.tellCaret(), caretEvery);
    page.beforeChange = () => this.takeSelection();
    this.listen();
    this.tell();
    this.root.focus({ preventScroll: true });
  }

  /** The text, or the cell of a table, that is typed into; empty while there is just a place for one. */
  get item(): string {
    return this.typed.item;
  }

  /** Whether something is there to be typed into, and not just a place for it. */
  get isThere(): boolean {
    return this.told !== undefined;
  }

  /** Where the first line begins, of a text that is there or may come, and how it is turned; page units. */
  get lies(): { place: Told['place']; measure: number; box: Told['box'] } {
    if (this.told) return this.told;
    const { x, y, width } = this.begins!;
    return { place: [1, 0, 0, 1, x, y], measure: width, box: [0, -400, width, 130] };
  }

  get selection(): { from: number; to: number } {
    this.takeSelection();
    return { from: this.told?.from ?? 0, to: this.told?.to ?? 0 };
  }

  /** What stands where something is selected. */
  get looks(): Looks | undefined {
    if (!this.told) return undefined;
    const { from, to } = this.selection;
    return JSON.parse(this.around.core.TextBridge.Looks(this.around.page.handle, from, to)) as Looks;
  }

  get core(): Core {
    return this.around.core;
  }

  get page(): OpenDocument {
    return this.around.page;
  }

  lineOf(position: number): ReturnType<UnderText['lineOf']> {
    return this.under.lineOf(position);
  }

  /** Types into another cell, at its end. */
  open(cell: string): void {
    this.end();
    this.isBackward = false;
    this.around.core.TextBridge.Open(this.around.page.handle, cell);
    this.tell();
    this.tellCaret();
  }

  /** Makes what is selected look otherwise, or what is typed next. */
  format(trait: Trait, value: string): void {
    if (this.table.takesSeveral) return this.table.doTaken('look', `${trait} ${value}`);
    this.act((page, from, to) => this.around.core.TextBridge.Format(page, from, to, trait, value));
  }

  /** The look of what is selected is kept, to be given to something else. */
  keepLook(): void {
    const { looks } = this;
    if (looks) keptLook = Object.fromEntries(Object.entries(looks).filter(([trait]) => kept.has(trait as Trait)));
  }

  /** What is selected looks as what was kept. */
  giveLook(): void {
    for (const [trait, value] of Object.entries(keptLook ?? {})) if (value !== null) this.format(trait as Trait, value);
  }

  get hasKeptLook(): boolean {
    return keptLook !== undefined;
  }

  /** Puts the text into the contents. */
  takeIntoContents(level: string): void {
    this.end();
    const { core, page } = this.around;
    const [item] = this.item.split(' ');
    const area = core.HandBridge.BoundsOf(page.handle, [item!]) as [number, number, number, number];
    addSpot(core, page, 'heading', area, [item!], { level });
  }

  /** What a sum comes to is written behind it. */
  workOut({ to, words, value }: Seen): void {
    this.type(`${words.endsWith('=') ? ' ' : ' = '}${value}`, { from: to, to });
  }

  /** How long its lines are. */
  setMeasure(measure: number): void {
    const { core, page } = this.around;
    this.end();
    page.perform((handle, now) => core.TextBridge.SetMeasure(handle, Math.round(measure), now));
  }

  /** The page is seen otherwise, or somebody did something to it. */
  refresh(): void {
    if (this.composing) return;
    this.takeSelection();
    if (!this.settle()) return;
    this.tell();
  }

  /** What was typed becomes an operation, and one step. */
  end(): void {
    const isThere = this.settle();
    this.typed.end();
    if (isThere) this.tellCaret();
  }

  stop(): void {
    this.end();
    const { core, page } = this.around;
    if (this.item) page.perform((handle, now) => core.DiagramBridge.Fit(handle, this.item, now));
    clearInterval(this.telling);
    page.beforeChange = undefined;
    this.around.tellCaret('', '', '');
    for (const end of this.ends) end();
    this.typed.close();
  }

  private tellCaret(): void {
    const [item, from, to] = this.around.core.TextBridge.Caret(this.around.page.handle);
    if (item) this.around.tellCaret(item, from!, to!);
  }

  /** False when the text is gone. */
  private settle(): boolean {
    if (!this.item) return this.begins !== undefined;
    if (this.typed.isThere()) return true;
    this.around.leave();
    return false;
  }

  private placeOf({ x, y, width }: TypingPlace) {
    const { core, page, paper, isOnLines } = this.around;
    // A box that was dragged has its first line within it.
    const at = width === undefined ? y : y + firstLine;
    const [foot, ruling, right] = core.TextBridge.RowAt(page.handle, paper, x, at) as [number, number, number];
    return {
      x: Math.round(x),
      y: isOnLines() ? foot : Math.round(at),
      width: Math.round(width ?? Math.max(right - x, leastWidth)),
      ruling: isOnLines() ? ruling : 0,
    };
  }

  private listen(): void {
    this.on('beforeinput', (event) => this.input(event));
    this.on('input', (event) => this.composed(event as InputEvent));
    this.on('compositionstart', () => (this.composing = this.selection));
    this.on('compositionend', () => {
      const at = this.composing?.to;
      this.forget();
      this.composing = undefined;
      if (at !== undefined) this.around.core.TextBridge.Select(this.around.page.handle, at, at);
      this.tell();
    });
    this.on('keydown', (event) => this.key(event));
    this.on('copy', (event) => this.copy(event));
    this.on('cut', (event) => {
      this.copy(event);
      if (this.table.takesSeveral) this.table.doTaken('empty');
      else this.type('');
    });
    this.on('paste', (event) => {
      event.preventDefault();
      event.stopPropagation();
      this.paste(event.clipboardData);
    });
    this.on('focus', () => this.showSelection());
    this.on('blur', () => this.end());
    const selected = () => {
      if (!this.takeSelection()) return;
      // Whoever goes elsewhere in the text begins another step; what is selected stays selected meanwhile.
      this.end();
      this.tellCaret();
      this.around.changed();
    };
    document.addEventListener('selectionchange', selected);
    const fonts = onFonts(() => {
      this.takeSelection();
      this.forget();
      this.refresh();
    });
    const leave = () => this.end();
    addEventListener('pagehide', leave);
    this.ends.push(
      () => document.removeEventListener('selectionchange', selected),
      fonts,
      () => removeEventListener('pagehide', leave),
    );
  }

  /**
   * What is selected on the screen is what Core has selected, before anything is done to the text or it is shown anew: the browser says only later that it
   * was selected. False where it was so already.
   */
  private takeSelection(): boolean {
    const own =
      this.isMaking || this.composing || document.activeElement !== this.root ? undefined : this.under.selection;
    if (!own || !this.told) return false;
    this.isBackward = own.isBackward;
    if ((own.from === this.told.from && own.to === this.told.to) || !this.typed.isHeld) return false;
    [this.told.from, this.told.to] = [own.from, own.to];
    this.around.core.TextBridge.Select(this.around.page.handle, own.from, own.to);
    return true;
  }

  private on<K extends keyof HTMLElementEventMap>(type: K, hear: (event: HTMLElementEventMap[K]) => void): void {
    this.root.addEventListener(type, hear);
    this.ends.push(() => this.root.removeEventListener(type, hear));
  }

  private key(event: KeyboardEvent): void {
    if (event.isComposing) return;
    const command = event.ctrlKey || event.metaKey;
    const key = event.key.toLowerCase();
    const trait = command && !event.altKey ? ({ b: 'bold', i: 'italic', u: 'underline' } as const)[key] : undefined;
    if (trait) this.toggle(trait);
    else if (command && key === 'z') this.step(event.shiftKey);
    else if (command && key === 'y') this.step(true);
    else if (event.key === 'Escape' && this.table.takesSeveral) this.table.letGo();
    else if (event.key === 'Escape') this.around.leave();
    else if (this.told?.cell && !command && !event.altKey && this.table.key(event)) return event.preventDefault();
    else if (event.key === 'Tab' && !command && !event.altKey)
      this.act((page, from, to) => this.around.core.TextBridge.Tab(page, from, to, event.shiftKey ? -1 : 1));
    else return;
    event.preventDefault();
  }

  private toggle(trait: 'bold' | 'italic' | 'underline'): void {
    this.format(trait, this.looks?.[trait] === '1' ? '' : '1');
  }

  private step(again: boolean): void {
    this.end();
    if (again) this.around.redo();
    else this.around.undo();
  }

  private input(event: InputEvent): void {
    const { core } = this.around;
    // The browser does it itself, and what comes of it is taken over.
    if (event.isComposing || event.inputType === 'insertCompositionText') return;
    event.preventDefault();
    // Keys of a screen say only this of what they remove.
    if (this.table.takesSeveral && event.inputType.startsWith('delete')) return this.table.doTaken('empty');
    const target = this.targetOf(event);
    switch (event.inputType) {
      case 'insertParagraph':
        // A keyboard on the screen says so, and not which key it was.
        if (this.told?.cell) return void this.table.onward(0, 1);
        return this.act((page, from, to) => core.TextBridge.Enter(page, from, to));
      case 'insertLineBreak':
        return this.type('\u2028', target);
      case 'insertText':
      case 'insertReplacementText':
      case 'insertFromDrop':
        return this.type(event.data ?? event.dataTransfer?.getData('text/plain') ?? '', target);
      case 'historyUndo':
        return this.step(false);
      case 'historyRedo':
        return this.step(true);
      case 'formatBold':
        return this.toggle('bold');
      case 'formatItalic':
        return this.toggle('italic');
      case 'formatUnderline':
        return this.toggle('underline');
      default:
        if (event.inputType.startsWith('delete')) this.remove(event.inputType, target);
    }
  }

  /** The letters that the browser would replace. */
  private targetOf(event: InputEvent): { from: number; to: number } | undefined {
    const [range] = event.getTargetRanges();
    if (!range) return undefined;
    const from = this.under.positionOf(range.startContainer, range.startOffset);
    const to = this.under.positionOf(range.endContainer, range.endOffset);
    return from === undefined || to === undefined ? undefined : { from: Math.min(from, to), to: Math.max(from, to) };
  }

  private remove(how: string, target: { from: number; to: number } | undefined): void {
    if (!this.told) return;
    const { from, to } = this.selection;
    if (from === to && how === 'deleteContentBackward') {
      let isDone = false;
      this.act((page) => (isDone = this.around.core.TextBridge.Back(page, from)));
      if (isDone) return;
    }
    let [first, last] = target ? [target.from, target.to] : [from, to];
    // At the edge of a line the browser sees nothing to be removed.
    if (first === last && how.endsWith('Backward')) first = Math.max(0, first - 1);
    else if (first === last && how.endsWith('Forward')) last = Math.min(this.told.length, last + 1);
    if (first < last) this.type('', { from: first, to: last });
  }

  /** What a method of input came to up to now. */
  private composed(event: InputEvent): void {
    const at = this.composing;
    if (!at || event.inputType !== 'insertCompositionText') return;
    const letters = event.data ?? '';
    this.typed.type(() => this.around.core.TextBridge.Type(this.made(), at.from, at.to, letters));
    at.to = at.from + letters.length;
  }

  /** What a web page or a word processor wrote keeps its paragraphs, lists and looks; all else is plain. */
  private paste(data: DataTransfer | null): void {
    const cells = this.table.cell ? cellsIn(data) : '';
    const first = this.table.taken;
    if (cells && first) return this.table.do('paste', [first.row, first.column], cells);
    const html = data?.getData('text/html') ?? '';
    if (html && html.length <= mostPasted) {
      const passage = readHtml(html);
      if (passage.text)
        return this.act((page, from, to) => {
          try {
            this.around.core.TextBridge.Paste(page, from, to, JSON.stringify(passage));
          } catch (problem) {
            // It is too much, and nothing of it is laid down.
            say(sentenceOf(problem));
          }
        });
    }
    this.type(data?.getData('text/plain') ?? '');
  }

  private type(letters: string, at: { from: number; to: number } = this.selection): void {
    this.table.letGo();
    if (!letters && at.from === at.to) return;
    this.act((page) => this.around.core.TextBridge.Type(page, at.from, at.to, letters), letters.length);
  }

  /** Does something to the text, and shows what became of it. */
  private act(change: (page: number, from: number, to: number) => void, letters = 1): void {
    const { from, to } = this.selection;
    if (!this.settle()) return;
    // Whoever follows the page is told of it, and this is one of them.
    this.typed.type(() => change(this.made(), from, to), letters);
    // Whoever chose something beside the text goes on typing in it.
    this.root.focus({ preventScroll: true });
    if (this.typed.isMuch) this.end();
  }

  /** The page's handle; the text is laid down when the first of it is typed. */
  private made(): number {
    const { core, page, layer, looks } = this.around;
    if (this.item) return page.handle;
    const { x, y, width, ruling, shape } = this.begins!;
    page.perform((handle, now) =>
      shape
        ? core.DiagramBridge.AddWords(handle, shape, JSON.stringify(looks()), layer(), now)
        : core.TextBridge.Add(handle, x, y, width, ruling, JSON.stringify(looks()), layer(), now),
    );
    this.typed.laid();
    return page.handle;
  }

  private tell(): void {
    const { core, page, view } = this.around;
    this.typed.item = core.TextBridge.Typing(page.handle);
    if (this.item) {
      this.told = wholeOf(JSON.parse(core.TextBridge.Told(page.handle)) as Told, this.told?.paragraphs ?? []);
      bringFonts(core);
      const [a, b] = this.told.place;
      this.isMaking = true;
      this.under.show(this.told, view().scale * Math.hypot(a, b));
      this.isMaking = false;
      this.showSelection();
    }
    this.around.changed();
  }

  private forget(): void {
    this.isMaking = true;
    this.under.forget();
  }

  /** Whoever is elsewhere stays there: what is selected takes the keyboard along. */
  private showSelection(): void {
    if (this.told && document.activeElement === this.root)
      this.under.select(this.told.from, this.told.to, this.isBackward);
  }

  private copy(event: ClipboardEvent): void {
    event.preventDefault();
    event.stopPropagation();
    if (this.table.takesSeveral) {
      const { plain, html } = this.table.cellsTaken();
      event.clipboardData?.setData('text/plain', plain);
      return event.clipboardData?.setData('text/html', html);
    }
    const { from, to } = this.selection;
    if (this.told && from < to)
      event.clipboardData?.setData('text/plain', this.around.core.TextBridge.Text(this.around.page.handle, from, to));
  }
}
