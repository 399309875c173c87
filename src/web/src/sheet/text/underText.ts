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
  top: string;
  lines: ToldLine[];
  /** What each row shows, whichever letters of the text those are. */
  said: string[];
  rows: HTMLElement[];
}

/**
 * The same text once more as the browser's own, unseen and in the same places: what carries the caret and what is selected, takes what a keyboard, a finger or a voice
 * says, is read aloud, and has its spelling checked.
 */
export class UnderText {
  /** By their numbers; two paragraphs that say the same are one to Core, and two here. */
  private paragraphs = new Map<number, Paragraph[]>();
  /** The lines that were told of each. */
  private readonly lines = new Map<number, ToldLine[]>();
  private rows: Row[] = [];
  private scale = 1;

  constructor(private readonly root: HTMLElement) {}

  /** Shows the text as it is told; a length of it is so many pixels. */
  show(told: Told, scale: number): void {
    if (scale !== this.scale) this.forget();
    this.scale = scale;
    const standing = new Map<number, Paragraph[]>();
    const all = new Set(told.paragraphs.map(({ id }) => id));
    const gone = new Map(
      [...this.paragraphs]
        .filter(([id]) => !all.has(id))
        .flatMap(([, of]) => of.map((one) => [one.element, one] as const)),
    );
    const rows: Row[] = [];
    let last: Element | null = null;
    for (const { id, start, y, lines } of told.paragraphs) {
      const same = standing.get(id) ?? [];
      let known = this.paragraphs.get(id)?.[same.length];
      const there: Element | null = last ? last.nextElementSibling : this.root.firstElementChild;
      if (!known) {
        const own = lines ?? this.lines.get(id);
        if (!own) continue;
        this.lines.set(id, own);
        // Of what stood there and says something else now, most stays as it was.
        known = gone.get(there as HTMLElement) ?? this.make();
        this.fill(known, own);
      }
      standing.set(id, [...same, known]);
      // The field begins where the box does, above the first line.
      const top = `${(y - told.box[1]) * scale}px`;
      if (known.top !== top) known.element.style.top = known.top = top;
      known.lines.forEach((line, i) =>
        rows.push({ element: known.rows[i]!, from: start + line.start, to: start + line.end }),
      );
      if (there !== known.element) this.root.insertBefore(known.element, there);
      last = known.element;
    }
    while (last?.nextElementSibling) last.nextElementSibling.remove();
    this.paragraphs = standing;
    for (const id of this.lines.keys()) if (!standing.has(id)) this.lines.delete(id);
    this.rows = rows;
  }

  /** All is made anew when it is shown next: the browser has changed it by itself. */
  forget(): void {
    this.paragraphs = new Map();
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

  private make(): Paragraph {
    const element = document.createElement('div');
    element.dataset.paragraph = '';
    // Nothing in it moves what is beside it.
    Object.assign(element.style, { position: 'absolute', left: '0', contain: 'layout style size' });
    return { element, top: '', lines: [], said: [], rows: [] };
  }

  /** Has a paragraph show these lines; rows that say what they said stay. */
  private fill(paragraph: Paragraph, lines: ToldLine[]): void {
    const said = lines.map((line) => JSON.stringify({ ...line, start: 0, end: 0 }));
    const rows = lines.map((line, i) => (paragraph.said[i] === said[i] ? paragraph.rows[i]! : this.makeRow(line)));
    rows.forEach((row, i) => {
      const there = paragraph.element.children[i];
      if (there === row) return;
      if (there) there.replaceWith(row);
      else paragraph.element.append(row);
    });
    while (paragraph.element.children.length > rows.length) paragraph.element.lastElementChild!.remove();
    Object.assign(paragraph, { lines, said, rows });
  }

  private makeRow(line: ToldLine): HTMLElement {
    const { scale } = this;
    const row = document.createElement('div');
    row.dataset.row = '';
    row.dir = line.fromRight ? 'rtl' : 'ltr';
    const high = (line.ascent + line.descent) * scale;
    Object.assign(row.style, {
      position: 'absolute',
      top: `${(line.y - line.ascent) * scale}px`,
      whiteSpace: 'pre',
      height: `${high}px`,
      lineHeight: `${high}px`,
      wordSpacing: `${line.stretch * scale}px`,
      // The line's own edge is where it begins to be read.
      ...(line.fromRight
        ? { left: `${(line.x + line.width) * scale}px`, transform: 'translateX(-100%)' }
        : { left: `${line.x * scale}px` }),
    });
    for (const span of joined(line.spans)) {
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

/** Words beside each other that look alike are one span; a tab is one by itself. */
function joined(spans: ToldLine['spans']): ToldLine['spans'] {
  const all: ToldLine['spans'] = [];
  for (const span of spans) {
    const last = all.at(-1);
    if (last && span.text !== '\t' && last.text !== '\t' && lookOf(last) === lookOf(span))
      all[all.length - 1] = { ...last, text: last.text + span.text };
    else all.push(span);
  }
  return all;
}

const lookOf = ({ family, size, bold, italic, rise }: ToldLine['spans'][number]): string =>
  [family, size, bold, italic, rise].join(' ');
