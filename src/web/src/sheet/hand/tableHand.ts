import { sentenceOf } from '../../core/runtime';
import { say } from '../../ui/saying';
import { between } from './boxHand';
import type { Hand, Workplace } from './hand';
import type { Sample } from './penInput';

export interface TableSettings {
  /** What a press lays down. */
  rows: number;
  columns: number;
  /** Whether the first row is a heading. */
  header: boolean;
}

/** What is dragged less far, 0.01 mm, is a press. */
const leastDragged = 800;
/** A dragged table has about so wide columns and so high rows, 0.01 mm; a pressed one just so. */
const usual = { width: 2800, height: 800 };
const most = { rows: 60, columns: 20 };
/** Rows are as high as the paper's lines are apart, where that is a height for a row, 0.01 mm. */
const leastRuled = 600;
const mostRuled = 1500;
const colour = '#22302e';
/** A press so near a table means it, pixels. */
const reach = 4;

/** Lays a table down, where it is pressed, or with as many rows and columns as there is room where it is dragged. A press on a cell types into it. */
export class TableHand implements Hand {
  private first: Sample | undefined;
  private last: Sample | undefined;

  constructor(
    private readonly at: Workplace,
    private readonly settings: TableSettings,
  ) {}

  begin(sample: Sample): void {
    this.first = this.last = sample;
    this.at.wet.begin(colour, 1, this.at.view());
  }

  move(samples: Sample[]): void {
    this.last = samples.at(-1)!;
    if (this.isPress) return this.at.wet.outline([], true, 1);
    this.at.wet.outline(gridOf(this.dragged), false, 1.2 / this.at.view().scale);
  }

  end(): void {
    this.at.wet.clear();
    if (!this.isPress) return this.lay(this.dragged);
    const { x, y } = this.first!;
    const { core, page } = this.at;
    const there = core.TextBridge.At(page.handle, x, y, reach / this.at.view().scale);
    // Only cells have a name of their own beside that of what they are in.
    if (there.includes(' ')) return this.at.events().types({ x, y });
    const { rows, columns } = this.settings;
    const [left, , right] = this.at.sheet();
    const { top, high } = this.rowAt(y);
    const wide = Math.min(columns * usual.width, right - left);
    this.lay({ left: Math.max(left, Math.min(x, right - wide)), top, wide, high, rows, columns });
  }

  cancel(): void {
    this.at.wet.clear();
  }

  private get isPress(): boolean {
    const [left, top, right, bottom] = between(this.first!, this.last!);
    return right - left < leastDragged || bottom - top < leastDragged;
  }

  /** What was dragged, with as many rows and columns as there is room for. */
  private get dragged(): Grid {
    const [left, from, right, bottom] = between(this.first!, this.last!);
    const { top, high } = this.rowAt(from);
    return {
      left,
      top,
      wide: right - left,
      high,
      rows: fit(bottom - top, high, most.rows),
      columns: fit(right - left, usual.width, most.columns),
    };
  }

  /** Where the row begins in which a spot is, and how high it is: on ruled paper the lines of the table lie on those of the paper. */
  private rowAt(y: number): { top: number; high: number } {
    const { core, page, paper } = this.at;
    const [foot, pitch] = core.TextBridge.RowAt(page.handle, paper, this.first!.x, y) as [number, number];
    return pitch >= leastRuled && pitch <= mostRuled
      ? { top: foot - Math.ceil((foot - y) / pitch) * pitch, high: pitch }
      : { top: y, high: usual.height };
  }

  private lay({ left, top, wide, high, rows, columns }: Grid): void {
    const { core, page, layer } = this.at;
    const each = (count: number, length: number) => Array.from({ length: count }, () => Math.round(length));
    try {
      page.perform((handle, now) =>
        core.TableBridge.Add(
          handle,
          Math.round(left),
          Math.round(top),
          each(columns, wide / columns),
          each(rows, high),
          this.settings.header ? 'header' : '',
          layer(),
          now,
        ),
      );
    } catch (problem) {
      say(sentenceOf(problem));
      return;
    }
    this.at.wrote([left, top, left + wide, top + high * rows]);
    this.at.events().types({ x: left, y: top, item: core.TableBridge.Made() });
  }
}

/** Where a table lies, how wide it is and how high each row; 0.01 mm. */
interface Grid {
  left: number;
  top: number;
  wide: number;
  high: number;
  rows: number;
  columns: number;
}

const fit = (length: number, each: number, atMost: number) => Math.max(1, Math.min(atMost, Math.round(length / each)));

/** The lines of a table in one go: to and fro along the rows, then up and down along the columns. */
function gridOf({ left, top, wide, high, rows, columns }: Grid): number[] {
  const [right, bottom] = [left + wide, top + high * rows];
  const points: number[] = [];
  for (let i = 0; i <= rows; i++) {
    const y = top + high * i;
    points.push(...(i % 2 === 0 ? [left, y, right, y] : [right, y, left, y]));
  }
  const fromRight = rows % 2 === 0;
  for (let i = 0; i <= columns; i++) {
    const x = left + (wide * (fromRight ? columns - i : i)) / columns;
    points.push(...(i % 2 === 0 ? [x, bottom, x, top] : [x, top, x, bottom]));
  }
  return points;
}
