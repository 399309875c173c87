import type { Trait } from './told';

/** How letters of a passage look in one respect. */
interface PassageLook {
  from: number;
  to: number;
  trait: Trait;
  value: string;
}

/** Letters and how they look, as Core takes them. */
export interface PastedPassage {
  text: string;
  looks: PassageLook[];
}

/** More than this is not read, letters of HTML. */
export const mostPasted = 8_000_000;

const skipped = new Set(
  'SCRIPT STYLE HEAD TITLE META LINK NOSCRIPT TEMPLATE SVG MATH OBJECT IFRAME CANVAS AUDIO VIDEO SELECT TEXTAREA BUTTON'.split(
    ' ',
  ),
);
const blocks = new Set(
  'P DIV H1 H2 H3 H4 H5 H6 LI BLOCKQUOTE PRE TR UL OL DL DT DD TABLE SECTION ARTICLE HEADER FOOTER MAIN NAV ASIDE FIGURE FIGCAPTION HR FORM'.split(
    ' ',
  ),
);
const styles: Record<string, string> = {
  H1: 'title',
  H2: 'heading',
  H3: 'subheading',
  H4: 'subheading',
  H5: 'subheading',
  H6: 'subheading',
  BLOCKQUOTE: 'quotation',
  PRE: 'code',
};
const signs: Record<string, [Trait, string]> = {
  B: ['bold', '1'],
  STRONG: ['bold', '1'],
  TH: ['bold', '1'],
  I: ['italic', '1'],
  EM: ['italic', '1'],
  CITE: ['italic', '1'],
  U: ['underline', '1'],
  INS: ['underline', '1'],
  S: ['struck', '1'],
  STRIKE: ['struck', '1'],
  DEL: ['struck', '1'],
  SUP: ['shift', 'raised'],
  SUB: ['shift', 'lowered'],
  CODE: ['family', 'mono'],
  KBD: ['family', 'mono'],
  TT: ['family', 'mono'],
  MARK: ['marker', 'e3b23c66'],
};
const mostDepth = 8;
const mostAddress = 1_900;
const boldFrom = 600;

/**
 * What a web page or a word processor has put onto the clipboard, as a passage: its paragraphs, headings, lists and the looks of its letters. Nothing of it is run,
 * fetched or shown; all else that it says is left out. Walked through without recursion, however deep it is.
 */
export function readHtml(html: string): PastedPassage {
  const { body } = new DOMParser().parseFromString(unstyled(html), 'text/html');
  const reader = new Reader();
  let node: Node | null = body.firstChild;
  while (node && node !== body) {
    const isLeft = node instanceof Element && (skipped.has(node.tagName.toUpperCase()) || node.tagName === 'BR');
    if (node instanceof Element) reader.enter(node);
    else if (node.nodeType === Node.TEXT_NODE) reader.text(node.textContent ?? '');
    if (node.firstChild && !isLeft) {
      node = node.firstChild;
      continue;
    }
    while (node && node !== body) {
      if (node instanceof Element) reader.leave(node);
      if (node.nextSibling) {
        node = node.nextSibling;
        break;
      }
      node = node.parentNode;
    }
  }
  return reader.end();
}

/** Styles under another name: they are read here, and the page's own rules let no browser apply them. */
function unstyled(html: string): string {
  return html.replace(/<[a-z][^<>]*>/gi, (tag) => tag.replace(/\sstyle\s*=/i, ` ${ownStyle}=`));
}

const ownStyle = 'data-own-style';

class Reader {
  private letters: string[] = [];
  private length = 0;
  private readonly looks: PassageLook[] = [];
  private readonly open: { element: Element; looks: [Trait, string][]; from: number }[] = [];
  private readonly lists: string[] = [];
  private start = 0;
  private paragraph: Partial<Record<Trait, string>> = {};
  private isKept = 0;

  enter(element: Element): void {
    const name = element.tagName.toUpperCase();
    if (skipped.has(name)) return;
    if (name === 'BR') return this.break();
    if (name === 'UL' || name === 'OL') this.lists.push(name === 'UL' ? 'bullet' : 'number');
    if (name === 'PRE') this.isKept++;
    if (blocks.has(name)) this.break(true);
    if (name === 'INPUT' && element.getAttribute('type') === 'checkbox') {
      this.paragraph.list = 'tick';
      if (element.hasAttribute('checked')) this.paragraph.ticked = '1';
    }
    if (name === 'LI') {
      this.paragraph.list ??= this.lists.at(-1) ?? 'bullet';
      const depth = Math.min(this.lists.length - 1, mostDepth);
      if (depth > 0) this.paragraph.indent = String(depth);
    }
    if (styles[name]) this.paragraph.style = styles[name];
    this.open.push({ element, looks: looksOf(element, name), from: this.length });
  }

  leave(element: Element): void {
    const name = element.tagName.toUpperCase();
    const one = this.open.at(-1)?.element === element ? this.open.pop() : undefined;
    if (!one) return;
    for (const [trait, value] of one.looks)
      if (one.from < this.length) this.looks.push({ from: one.from, to: this.length, trait, value });
    if (name === 'UL' || name === 'OL') this.lists.pop();
    if (name === 'PRE') this.isKept--;
    if (name === 'TD' || name === 'TH') this.put('\t');
    if (blocks.has(name)) this.break(true);
  }

  text(text: string): void {
    if (this.isKept > 0) {
      text.split('\n').forEach((line, i) => {
        if (i > 0) this.break();
        this.put(line);
      });
      return;
    }
    const plain = text.replace(/[\t\n\f\r ]+/g, ' ');
    // A paragraph does not begin with a space, and two in a row are one.
    const ends = this.length === this.start || this.letters.at(-1)?.endsWith(' ');
    this.put(ends && plain.startsWith(' ') ? plain.slice(1) : plain);
  }

  end(): PastedPassage {
    this.finish();
    const text = this.letters.join('').replace(/[\n\t ]+$/, '');
    return {
      text,
      looks: this.looks
        .map((look) => ({ ...look, to: Math.min(look.to, text.length + (isOfParagraphs(look.trait) ? 1 : 0)) }))
        .filter(({ from, to }) => from < to),
    };
  }

  private put(letters: string): void {
    if (letters.length === 0) return;
    this.letters.push(letters);
    this.length += letters.length;
  }

  /** Ends the paragraph; at the edge of a block only where there is one. */
  private break(isEdge = false): void {
    if (isEdge && this.length === this.start) return;
    const { style, list, indent } = this.paragraph;
    this.finish();
    this.put('\n');
    this.start = this.length;
    // What is broken within a block goes on as it was.
    this.paragraph = isEdge
      ? this.styleAround()
      : { ...(style && { style }), ...(list && { list }), ...(indent && { indent }) };
  }

  /** How a paragraph looks that begins in the middle of blocks which are open. */
  private styleAround(): Partial<Record<Trait, string>> {
    const around = this.open.findLast(({ element }) => styles[element.tagName.toUpperCase()]);
    return around ? { style: styles[around.element.tagName.toUpperCase()]! } : {};
  }

  private finish(): void {
    for (const [trait, value] of Object.entries(this.paragraph) as [Trait, string][])
      this.looks.push({ from: this.start, to: this.length + 1, trait, value });
    this.paragraph = {};
  }
}

const isOfParagraphs = (trait: Trait): boolean => ['style', 'list', 'indent', 'ticked'].includes(trait);

/** What an element says of its letters. */
function looksOf(element: Element, name: string): [Trait, string][] {
  const looks: [Trait, string][] = [];
  if (signs[name]) looks.push(signs[name]);
  const address = name === 'A' ? (element.getAttribute('href') ?? '') : '';
  if (/^https?:\/\//.test(address) && address.length < mostAddress) looks.push(['link', address]);
  const said = declared(element);
  const weight = said['font-weight'] === 'bold' ? boldFrom : Number(said['font-weight']);
  if (weight >= boldFrom) looks.push(['bold', '1']);
  else if (said['font-weight'] === 'normal' || weight > 0)
    // Some wrap all they copy in a bold element that is said not to be.
    looks.splice(0, looks.length, ...looks.filter(([trait]) => trait !== 'bold'));
  if (said['font-style'] === 'italic') looks.push(['italic', '1']);
  const lines = `${said['text-decoration'] ?? ''} ${said['text-decoration-line'] ?? ''}`;
  if (lines.includes('underline') && name !== 'A') looks.push(['underline', '1']);
  if (lines.includes('line-through')) looks.push(['struck', '1']);
  if (said['vertical-align'] === 'super') looks.push(['shift', 'raised']);
  if (said['vertical-align'] === 'sub') looks.push(['shift', 'lowered']);
  return looks;
}

/** What an element's own style says, by property. */
function declared(element: Element): Record<string, string> {
  const rows = (element.getAttribute(ownStyle) ?? '').split(';').map((row) => row.split(':'));
  return Object.fromEntries(
    rows.map(([name, value]) => [name!.trim().toLowerCase(), (value ?? '').trim().toLowerCase()]),
  );
}
