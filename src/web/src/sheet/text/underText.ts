import { familyOf } from '../../letters/fonts';
import type { Told, ToldLine } from './told';

/** A line in the browser's own text, and which letters it shows. */
interface Row {
  element: HTMLElement;
  from: number;
  to: number;
}

interface Paragraph {
  element: HTMLElement;
  lines: ToldLine[];
  rows: HTMLElement[];
}

/**
 * The same text once more as the browser's own, unseen and in the same places: what carries the caret and what is selected, takes what a keyboard, a finger or a voice
 * says, is read aloud, and has its spelling checked.
 */
export class UnderText {
  private readonly paragraphs = new Map<number, Paragraph>();
  /** The lines that were told of each. */
  private readonly lines = new Map<number, ToldLine[]>();
  private rows: Row[] = [];
  private scale = 1;

  constructor(private readonly root: HTMLElement) {}

  /** Shows the text as it is told; a length of it is so many pixels. */
  show(told: Told, scale: number): void {
    if (scale !== this.scale) this.forget();
    this.scale = scale;
    const standing = new Set<number>();
    const rows: Row[] = [];
    let last: Element | null = null;
    for (const { id, start, y, lines } of told.paragraphs) {
      // Two paragraphs that say the same are one to Core, and two here.
      let known = standing.has(id) ? undefined : this.paragraphs.get(id);
      if (!known) {
        const all = lines ?? this.lines.get(id);
        if (!all) continue;
        this.lines.set(id, all);
        known = this.make(all);
        if (!standing.has(id)) this.paragraphs.set(id, known);
      }
      standing.add(id);
      known.lines.forEach((line, i) => {
        const row = known.rows[i]!;
        row.style.top = `${(y + line.y - line.ascent) * scale}px`;
        rows.push({ element: row, from: start + line.start, to: start + line.end });
      });
      if (last ? last.nextElementSibling !== known.element : this.root.firstElementChild !== known.element)
        this.root.insertBefore(known.element, last ? last.nextElementSibling : this.root.firstElementChild);
      last = known.element;
    }
    while (last?.nextElementSibling) last.nextElementSibling.remove();
    for (const of of [this.paragraphs, this.lines]) for (const id of of.keys()) if (!standing.has(id)) of.delete(id);
    this.rows = rows;
  }

  /** All is made anew when it is shown next: the browser has changed it by itself. */
  forget(): void {
    this.paragraphs.clear();
    this.root.replaceChildren();
    this.rows = [];
  }

  /** The letter before which a place in the browser's text lies; undefined outside of it. */
  positionOf(node: Node, offset: number): number | undefined {
    if (node === this.root) return (offset === 0 ? this.rows[0]?.from : this.rows.at(-1)?.to) ?? 0;
    const element = node instanceof Element ? node : node.parentElement;
    const paragraph = element?.closest<HTMLElement>('[data-paragraph]');
    const own = element?.closest<HTMLElement>('[data-row]');
    const row = this.rows.find((one) => (own ? one.element === own : one.element.parentElement === paragraph));
    if (!row) return undefined;
    if (!own) return offset === 0 ? row.from : Math.max(...this.rowsOf(paragraph!).map(({ to }) => to));
    const range = document.createRange();
    range.setStart(own, 0);
    range.setEnd(node, offset);
    return Math.min(row.from + range.toString().length, row.to);
  }

  /** What is selected in the browser's text; undefined where that is elsewhere. */
  get selection(): { from: number; to: number; isBackward: boolean } | undefined {
    const selected = document.getSelection();
    if (!selected?.anchorNode || !selected.focusNode || !this.root.contains(selected.anchorNode)) return undefined;
    const anchor = this.positionOf(selected.anchorNode, selected.anchorOffset);
    const focus = this.positionOf(selected.focusNode, selected.focusOffset);
    if (anchor === undefined || focus === undefined) return undefined;
    return { from: Math.min(anchor, focus), to: Math.max(anchor, focus), isBackward: focus < anchor };
  }

  select(from: number, to: number, isBackward = false): void {
    const [start, end] = [this.placeOf(from), this.placeOf(to)];
    const selected = document.getSelection();
    if (!start || !end || !selected) return;
    if (isBackward) selected.setBaseAndExtent(...end, ...start);
    else selected.setBaseAndExtent(...start, ...end);
  }

  /** Whether a place is in the first and the last line, and at the end of all. */
  lineOf(position: number): { isFirst: boolean; isLast: boolean; isAtEnd: boolean } {
    const at = this.rows.findLastIndex(({ from, to }) => position >= from && position <= to);
    return {
      isFirst: at <= 0,
      isLast: at < 0 || at === this.rows.length - 1,
      isAtEnd: at < 0 || (at === this.rows.length - 1 && position === this.rows[at]!.to),
    };
  }

  private rowsOf(paragraph: HTMLElement): Row[] {
    return this.rows.filter(({ element }) => element.parentElement === paragraph);
  }

  /** Where in the browser's text the place before a letter is. */
  private placeOf(position: number): [Node, number] | undefined {
    const row =
      this.rows.find(({ from, to }) => position >= from && position < to) ??
      this.rows.findLast(({ from, to }) => position >= from && position <= to) ??
      this.rows.at(-1);
    if (!row) return undefined;
    let left = position - row.from;
    const texts = document.createTreeWalker(row.element, NodeFilter.SHOW_TEXT);
    for (let node = texts.nextNode(); node; node = texts.nextNode()) {
      const length = node.textContent!.length;
      if (left <= length) return [node, left];
      left -= length;
    }
    return [row.element, 0];
  }

  private make(lines: ToldLine[]): Paragraph {
    const element = document.createElement('div');
    element.dataset.paragraph = '';
    const rows = lines.map((line) => this.makeRow(line));
    element.append(...rows);
    return { element, lines, rows };
  }

  private makeRow(line: ToldLine): HTMLElement {
    const { scale } = this;
    const row = document.createElement('div');
    row.dataset.row = '';
    row.dir = line.fromRight ? 'rtl' : 'ltr';
    const high = (line.ascent + line.descent) * scale;
    Object.assign(row.style, {
      position: 'absolute',
      whiteSpace: 'pre',
      height: `${high}px`,
      lineHeight: `${high}px`,
      wordSpacing: `${line.stretch * scale}px`,
      // The line's own edge is where it begins to be read.
      ...(line.fromRight
        ? { left: `${(line.x + line.width) * scale}px`, transform: 'translateX(-100%)' }
        : { left: `${line.x * scale}px` }),
    });
    for (const span of line.spans) {
      const one = document.createElement('span');
      one.textContent = span.text;
      Object.assign(one.style, {
        fontFamily: familyOf(span.family),
        fontSize: `${span.size * scale}px`,
        fontWeight: span.bold ? '700' : '400',
        fontStyle: span.italic ? 'italic' : 'normal',
        ...(span.rise === 0 ? {} : { position: 'relative', top: `${-span.rise * scale}px` }),
        // A tab is as wide as Core has it.
        ...(span.text === '\t' ? { display: 'inline-block', width: `${span.width * scale}px` } : {}),
      });
      row.append(one);
    }
    // An empty line is a place for the caret all the same.
    if (line.spans.length === 0) {
      row.append(document.createElement('br'));
      row.style.fontSize = `${line.ascent * scale}px`;
    }
    return row;
  }
}
