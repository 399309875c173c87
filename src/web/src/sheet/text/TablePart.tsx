import { t } from '@lingui/core/macro';
import {
  ArrowDownIcon,
  ArrowLeftIcon,
  ArrowRightIcon,
  ArrowUpIcon,
  ChartScatterIcon,
  ColumnsPlusLeftIcon,
  ColumnsPlusRightIcon,
  CopyIcon,
  type Icon,
  RowsPlusBottomIcon,
  RowsPlusTopIcon,
  SortAscendingIcon,
  SortDescendingIcon,
  TrashIcon,
} from '@phosphor-icons/react';
import type { ReactNode } from 'react';
import { Button, SignButton } from '../../ui/Button';
import { Segments, Switch } from '../../ui/Segments';
import type { TableTyping } from './tableTyping';

const fills = ['', 'f3e2a4ff', 'f2cdb8ff', 'd5dfb8ff', 'c5d8e0ff'];

/** What can be done with a table from the cell in which one types: rows, columns, cells, and what stands under a column. */
export function TablePart({ typed, onPlot }: { typed: TableTyping; onPlot: (item: string) => void }) {
  const { shown: table, cell, taken, takesSeveral } = typed;
  if (!table || !cell || !taken) return null;
  const [rows, columns] = [table.down.length - 1, table.across.length - 1];
  const { row, column, lastRow, lastColumn } = taken;
  const words = table.shows.split(' ').filter(Boolean);
  const turn = (word: string, on: boolean) =>
    typed.setShows((on ? [...words, word] : words.filter((one) => one !== word)).join(' '));
  const isJoined = lastRow > row || lastColumn > column;
  return (
    <div className="w-[276px]" data-testid="table-part">
      <Line name={t`Row`}>
        <Do label={t`Row above`} id="row-above" icon={RowsPlusTopIcon} press={() => typed.do('add-rows', [row, 1])} />
        <Do
          label={t`Row below`}
          id="row-below"
          icon={RowsPlusBottomIcon}
          press={() => typed.do('add-rows', [lastRow + 1, 1])}
        />
        <Do
          label={t`Up`}
          id="row-up"
          icon={ArrowUpIcon}
          off={row === 0 || isJoined}
          press={() => typed.do('move-row', [row, row - 1])}
        />
        <Do
          label={t`Down`}
          id="row-down"
          icon={ArrowDownIcon}
          off={row === rows - 1 || isJoined}
          press={() => typed.do('move-row', [row, row + 1])}
        />
        <Do
          label={t`Remove the row`}
          id="row-remove"
          icon={TrashIcon}
          off={rows === 1}
          press={() => typed.removeRow()}
        />
      </Line>
      <Line name={t`Column`}>
        <Do
          label={t`Column to the left`}
          id="column-left"
          icon={ColumnsPlusLeftIcon}
          press={() => typed.do('add-columns', [column, 1])}
        />
        <Do
          label={t`Column to the right`}
          id="column-right"
          icon={ColumnsPlusRightIcon}
          press={() => typed.do('add-columns', [lastColumn + 1, 1])}
        />
        <Do
          label={t`To the left`}
          id="column-back"
          icon={ArrowLeftIcon}
          off={column === 0 || isJoined}
          press={() => typed.do('move-column', [column, column - 1])}
        />
        <Do
          label={t`To the right`}
          id="column-on"
          icon={ArrowRightIcon}
          off={column === columns - 1 || isJoined}
          press={() => typed.do('move-column', [column, column + 1])}
        />
        <Do
          label={t`Remove the column`}
          id="column-remove"
          icon={TrashIcon}
          off={columns === 1}
          press={() => typed.removeColumn()}
        />
      </Line>
      <Line name={t`Table`}>
        <Do
          label={t`Sort by this column, the smallest first`}
          id="sort-up"
          icon={SortAscendingIcon}
          press={() => typed.do('sort', [column, 0])}
        />
        <Do
          label={t`Sort by this column, the largest first`}
          id="sort-down"
          icon={SortDescendingIcon}
          press={() => typed.do('sort', [column, 1])}
        />
        <Do label={t`Copy it for a spreadsheet`} id="table-copy" icon={CopyIcon} press={() => void typed.copy()} />
        <Do
          label={t`Plot its numbers`}
          id="table-plot"
          icon={ChartScatterIcon}
          off={columns < 2}
          press={() => onPlot(typed.id)}
        />
      </Line>
      <Line name={takesSeveral ? t`Cells` : t`Cell`}>
        {takesSeveral ? (
          <>
            <Button
              className="px-2 text-[13px]"
              data-testid="cells-join"
              onClick={() => {
                typed.doTaken('join');
                typed.letGo();
              }}
            >
              {t`Join them`}
            </Button>
            <Button className="px-2 text-[13px]" data-testid="cells-empty" onClick={() => typed.doTaken('empty')}>
              {t`Empty them`}
            </Button>
          </>
        ) : isJoined ? (
          <Button className="px-2 text-[13px]" data-testid="cell-part" onClick={() => typed.do('part', [row, column])}>
            {t`Part it again`}
          </Button>
        ) : (
          <>
            <Button
              className="px-2 text-[13px]"
              disabled={column === columns - 1}
              data-testid="cell-join-right"
              onClick={() => typed.do('join', [row, column, row, column + 1])}
            >
              {t`Join to the right`}
            </Button>
            <Button
              className="px-2 text-[13px]"
              disabled={row === rows - 1}
              data-testid="cell-join-down"
              onClick={() => typed.do('join', [row, column, row + 1, column])}
            >
              {t`Join down`}
            </Button>
          </>
        )}
      </Line>
      <div
        role="group"
        aria-label={takesSeveral ? t`Fill of the cells` : t`Fill of the cell`}
        className="mt-1.5 flex gap-1.5"
      >
        {fills.map((fill) => (
          <button
            key={fill}
            type="button"
            aria-label={fill ? `#${fill.slice(0, 6)}` : t`No fill`}
            title={fill ? `#${fill.slice(0, 6)}` : t`No fill`}
            aria-pressed={cell.fill === fill}
            data-testid={`cell-fill-${fill.slice(0, 6) || 'none'}`}
            className={`h-11 grow rounded-sm border ${cell.fill === fill ? 'border-2 border-primary' : 'border-base-300'}`}
            style={
              fill
                ? { backgroundColor: `#${fill.slice(0, 6)}` }
                : {
                    background: 'linear-gradient(to top right, #fffdf7 48.5%, #b4533c 49%, #b4533c 51%, #fffdf7 51.5%)',
                  }
            }
            onClick={() => typed.doTaken('fill', fill)}
          />
        ))}
      </div>
      <Segments
        label={t`Under the column`}
        value={table.totals[column] ?? ''}
        onValue={(total) => typed.do('total', [column], total)}
        options={[
          { value: '', words: t({ message: 'nothing', context: 'under a column' }), testId: 'total-none' },
          { value: 'sum', words: t`sum`, testId: 'total-sum' },
          { value: 'mean', words: t`mean`, testId: 'total-mean' },
          { value: 'count', words: t`count`, testId: 'total-count' },
        ]}
      />
      <Switch
        label={t`The first row is a heading`}
        on={words.includes('header')}
        testId="shows-header"
        onChange={(on) => turn('header', on)}
      />
      <Switch
        label={t`Lines between cells`}
        on={!words.includes('plain')}
        testId="shows-lines"
        onChange={(on) => turn('plain', !on)}
      />
    </div>
  );
}

function Line({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="flex items-center gap-0.5" role="group" aria-label={name}>
      <span className="w-[52px] shrink-0 truncate text-[13px] text-quiet">{name}</span>
      {children}
    </div>
  );
}

function Do({
  label,
  id,
  icon: Of,
  off = false,
  press,
}: {
  label: string;
  id: string;
  icon: Icon;
  off?: boolean;
  press: () => void;
}) {
  return (
    <SignButton label={label} data-testid={id} disabled={off} className="disabled:opacity-35" onClick={press}>
      <Of size={20} weight="light" />
    </SignButton>
  );
}
