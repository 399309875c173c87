import { t } from '@lingui/core/macro';
import { TableIcon } from '@phosphor-icons/react';
import { Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import { TableHand, type TableSettings } from '../hand/tableHand';
import type { PanelProps, Tool } from '../hand/tool';
import { Unfolded } from './Unfolded';

/** Laying a table on the page, and typing into its cells. */
export const table: Tool<TableSettings> = {
  name: 'table',
  words: () => t`Table`,
  icon: () => TableIcon,
  key: 'd',
  first: { rows: 4, columns: 3, header: true },
  Panel: TablePanel,
  hint: t`Press where a table is to lie, or drag as large as it is to be. A press on a cell types into it.`,
  hold: (settings) => ({
    name: 'table',
    leavesInk: true,
    takeUp: (at) => new TableHand(at, settings),
  }),
};

function TablePanel({ tools }: PanelProps) {
  const { rows, columns, header } = tools.settingsOf(table);
  const change = (changed: Partial<TableSettings>) => tools.change(table, changed);
  return (
    <Unfolded title={t`Table`} testId="table-settings" hint={t`A press lays one of this size down.`}>
      <Slider
        label={t`Columns`}
        value={columns}
        min={1}
        max={12}
        testId="table-columns"
        words={String}
        onValue={(to) => change({ columns: to })}
      />
      <Slider
        label={t`Rows`}
        value={rows}
        min={1}
        max={30}
        testId="table-rows"
        words={String}
        onValue={(to) => change({ rows: to })}
      />
      <Switch
        label={t`The first row is a heading`}
        on={header}
        testId="table-header"
        onChange={(to) => change({ header: to })}
      />
    </Unfolded>
  );
}
