import { t } from '@lingui/core/macro';
import { type Core, sentenceOf } from '../../core/runtime';
import type { CellRange, ShownCell, ShownTable, TableDeed } from '../../core/tableBridge';
import type { OpenDocument } from '../../sync/openDocument';
import { arrowWays } from '../../ui/Grip';
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
  /** Whether what is selected grows at its beginning. */
  readonly isBackward: boolean;
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
  private kept: { of: Told; shown: ShownTable | undefined; cell: ShownCell | undefined } | undefined;
  /** The cell up to which several are taken, by its name; undefined while it is the one in which one types. */
  private through: string | undefined;

  constructor(private readonly typist: Typist) {}

  /** The table; undefined where it is none that one types in. */
  get shown(): ShownTable | undefined {
    return this.seen?.shown;
  }

  /** The cell in which one types. */
  get cell(): ShownCell | undefined {
    return this.seen?.cell;
  }

  private get seen() {
    const { told, core, page, item } = this.typist;
    if (!told?.cell) return undefined;
    const { kept } = this;
    const isKept =
      kept?.of.edition === told.edition &&
      kept.of.cell === told.cell &&
      kept.of.place.every((part, i) => part === told.place[i]);
    if (!isKept) {
      const json = core.TableBridge.Table(page.handle, item);
      this.kept = {
        of: told,
        shown: json ? (JSON.parse(json) as ShownTable) : undefined,
        cell: this.cellOf(told.cell),
      };
    }
    return this.kept;
  }

  private cellOf(name: string): ShownCell | undefined {
    const { core, page } = this.typist;
    const json = core.TableBridge.Cell(page.handle, `${this.id} ${name}`);
    return json ? (JSON.parse(json) as ShownCell) : undefined;
  }

  /** The cells that are taken: the one in which one types, or all from that to another. */
  get taken(): CellRange | undefined {
    const { core, page, item } = this.typist;
    const { cell, through } = this;
    if (!cell || through === undefined) return cell;
    const [row, column, lastRow, lastColumn] = core.TableBridge.Between(page.handle, item, through);
    return lastColumn === undefined ? cell : { row: row!, column: column!, lastRow: lastRow!, lastColumn };
  }

  get takesSeveral(): boolean {
    return this.through !== undefined && this.cell !== undefined;
  }

  /** Takes all cells up to the one at a spot of the page. */
  takeUpTo(x: number, y: number): void {
    const { shown } = this;
    if (!shown) return;
    const [a, , , d, e, f] = shown.place;
    const at = (edges: number[], length: number) => {
      const behind = edges.findIndex((edge) => edge > length);
      return behind < 0 ? edges.length - 2 : Math.max(0, behind - 1);
    };
    this.take(at(shown.down, (y - f) / d), at(shown.across, (x - e) / a));
  }

  /** Takes one column or row more or less, on the side that is not the cell in which one types. */
  extend(columns: number, rows: number): boolean {
    const end = (this.through === undefined ? undefined : this.cellOf(this.through)) ?? this.cell;
    if (!end) return false;
    return this.take(
      rows > 0 ? end.lastRow + rows : end.row + rows,
      columns > 0 ? end.lastColumn + columns : end.column + columns,
    );
  }

  private take(row: number, column: number): boolean {
    const { core, page } = this.typist;
    const end = core.TableBridge.At(page.handle, this.id, row, column);
    if (!end) return false;
    this.typist.end();
    this.through = end === this.cell?.name ? undefined : end;
    this.typist.refresh();
    return true;
  }

  /** One cell is taken again, the one in which one types. */
  letGo(): void {
    if (this.through === undefined) return;
    this.through = undefined;
    this.typist.refresh();
  }

  /** Does something to the cells that are taken. */
  doTaken(what: TableDeed, words = ''): void {
    const { taken } = this;
    if (taken) this.do(what, edgesOf(taken), words);
  }

  /** The cells that are taken as other programs take them: parted by tabs, and as HTML. */
  cellsTaken(): { plain: string; html: string } {
    const { core, page } = this.typist;
    const { taken } = this;
    const [plain = '', html = ''] = taken ? core.TableBridge.Sheet(page.handle, this.id, edgesOf(taken)) : [];
    return { plain, html };
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
    const [cells = '', html = ''] = core.TableBridge.Sheet(page.handle, this.id, []);
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
    if (shiftKey && key in arrowWays && this.keyTakes(key)) return true;
    if (this.takesSeveral) {
      if (key === 'Delete' || key === 'Backspace') {
        this.doTaken('empty');
        return true;
      }
      if (!shiftKey || key === 'Tab') this.letGo();
    }
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

  /** Whether an arrow key with Shift takes a cell more: where no more letters can be selected that way. */
  private keyTakes(key: string): boolean {
    const [columns, rows] = arrowWays[key]!;
    const { from, to } = this.typist.selection;
    const first = this.typist.told?.paragraphs[0]?.start ?? 0;
    const { isBackward } = this.typist;
    const isAtEdge = columns + rows > 0 ? this.typist.lineOf(to).isAtEnd : from <= first;
    // Else it leaves out letters that were selected the other way.
    const grows = from === to || isBackward === columns + rows < 0;
    if (!this.takesSeveral && !(isAtEdge && grows)) return false;
    return this.extend(columns, rows) || this.takesSeveral;
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
    this.through = undefined;
    const next = core.TableBridge.Beside(page.handle, item, columns, rows);
    if (next) this.typist.open(next);
    return next !== '';
  }
}

/** A range as Core takes it. */
const edgesOf = ({ row, column, lastRow, lastColumn }: CellRange): number[] => [row, column, lastRow, lastColumn];
