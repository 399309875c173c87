import { t } from '@lingui/core/macro';
import { type Core, sentenceOf } from '../../core/runtime';
import type { ShownCell, ShownTable, TableDeed } from '../../core/tableBridge';
import type { OpenDocument } from '../../sync/openDocument';
import { say } from '../../ui/saying';
import { showsField } from '../hand/useItemFields';
import type { Told } from './told';

/** Who types, as far as a table needs it. */
interface Typist {
  readonly core: Core;
  readonly page: OpenDocument;
  /** The cell that is typed into, by its table's id and its own. */
  readonly item: string;
  readonly told: Told | undefined;
  readonly selection: { from: number; to: number };
  /** Whether a place is in the first and the last line, and at the end of all. */
  lineOf(position: number): { isFirst: boolean; isLast: boolean; isAtEnd: boolean };
  /** What was typed becomes a step. */
  end(): void;
  refresh(): void;
  /** Types into another cell, at its end. */
  open(cell: string): void;
}

/** A table while somebody types into one of its cells: what keys lead to, and all that is done to it as a whole. */
export class TableTyping {
  private kept: { of: Told; shown: ShownTable | undefined } | undefined;

  constructor(private readonly typist: Typist) {}

  /** The table; undefined where it is none that one types in. */
  get shown(): ShownTable | undefined {
    const { told, core, page, item } = this.typist;
    if (!told?.cell) return undefined;
    if (this.kept?.of !== told) {
      const json = core.TableBridge.Table(page.handle, item);
      this.kept = { of: told, shown: json ? (JSON.parse(json) as ShownTable) : undefined };
    }
    return this.kept.shown;
  }

  /** The cell in which one types. */
  get cell(): ShownCell | undefined {
    return this.shown?.cells.find(({ name }) => name === this.typist.told?.cell);
  }

  /** Its id. */
  get id(): string {
    return this.typist.item.split(' ')[0]!;
  }

  /** Does something to it; what was typed before is a step of its own. */
  do(what: TableDeed, at: number[], words = ''): void {
    const { core, page, item } = this.typist;
    this.typist.end();
    try {
      page.performTogether((handle, now) => core.TableBridge.Do(handle, item, what, at, words, now));
    } catch (problem) {
      // It would be too large, and nothing of it is done.
      say(sentenceOf(problem));
    }
    this.typist.refresh();
  }

  /** Says how it looks, in words of Core. */
  setShows(words: string): void {
    const { core, page } = this.typist;
    this.typist.end();
    page.perform((handle, now) => core.HandBridge.Set(handle, [this.id], [showsField], [words], now));
  }

  removeRow(): void {
    const { cell } = this;
    if (!cell) return;
    if (!this.go(0, 1)) this.go(0, -1);
    this.do('remove-row', [cell.row]);
  }

  removeColumn(): void {
    const { cell } = this;
    if (!cell) return;
    if (!this.go(1, 0)) this.go(-1, 0);
    this.do('remove-column', [cell.column]);
  }

  /** Copies the whole of it as a spreadsheet takes it. */
  async copy(): Promise<void> {
    const { core, page } = this.typist;
    const [cells = '', html = ''] = core.TableBridge.Sheet(page.handle, this.id);
    const of = (text: string, type: string) => new Blob([text], { type });
    try {
      await navigator.clipboard.write([
        new ClipboardItem({ 'text/plain': of(cells, 'text/plain'), 'text/html': of(html, 'text/html') }),
      ]);
      say(t`Copied. It can be laid down in a spreadsheet.`);
    } catch {
      say(t`It could not be copied: the browser did not allow it.`);
    }
  }

  /** Where keys lead out of a cell: true when they do. */
  key({ key, shiftKey }: KeyboardEvent): boolean {
    if (key === 'Tab') return this.onward(shiftKey ? -1 : 1, 0);
    if (key === 'Enter' && !shiftKey) return this.onward(0, 1);
    const { from, to } = this.typist.selection;
    if (shiftKey || from !== to) return false;
    const at = this.typist.lineOf(from);
    switch (key) {
      case 'ArrowUp':
        return at.isFirst && this.go(0, -1);
      case 'ArrowDown':
        return at.isLast && this.go(0, 1);
      case 'ArrowLeft':
        return from <= this.typist.told!.paragraphs[0]!.start && this.go(-1, 0);
      case 'ArrowRight':
        return at.isAtEnd && this.go(1, 0);
      default:
        return false;
    }
  }

  /** On to the next cell; behind the last one there is a row more. */
  onward(columns: number, rows: number): true {
    if (this.go(columns, rows) || columns < 0) return true;
    this.do('add-rows', [(this.shown?.down.length ?? 1) - 1, 1]);
    this.go(columns, rows);
    return true;
  }

  /** To a cell so far off; false where there is none. */
  private go(columns: number, rows: number): boolean {
    const { core, page, item } = this.typist;
    this.typist.end();
    const next = core.TableBridge.Beside(page.handle, item, columns, rows);
    if (next) this.typist.open(next);
    return next !== '';
  }
}
