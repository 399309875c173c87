import { t } from '@lingui/core/macro';
import { ArrowLineDownIcon } from '@phosphor-icons/react';
import { Segments, Switch } from '../../ui/Segments';
import { RoomHand } from '../hand/roomHand';
import type { PanelProps, Tool } from '../hand/tool';
import { Unfolded } from './Unfolded';

interface RoomSettings {
  sideways: boolean;
  /** What leaves the sheet goes to the next page. */
  toNext: boolean;
}

/** Making room: all beyond a line moves along. */
export const room: Tool<RoomSettings> = {
  name: 'room',
  words: () => t`Room`,
  title: t`Make room`,
  icon: () => ArrowLineDownIcon,
  key: 'k',
  first: { sideways: false, toNext: true },
  Panel: RoomPanel,
  hold: (settings) => ({
    name: 'room',
    // Shift makes it the other way.
    takeUp: (at) => new RoomHand(at, settings.sideways !== at.shift(), settings.toNext),
  }),
};

function RoomPanel({ tools }: PanelProps) {
  const settings = tools.settingsOf(room);
  return (
    <Unfolded
      title={t`Make room`}
      testId="room-settings"
      hint={
        settings.sideways
          ? t`Drag a line to the right: all right of it moves along.`
          : t`Drag a line down: all below it moves along. Back takes empty space away.`
      }
    >
      <Segments
        label={t`Which way`}
        value={settings.sideways ? 'right' : 'down'}
        onValue={(way) => tools.change(room, { sideways: way === 'right' })}
        options={[
          { value: 'down', words: t`Down`, testId: 'room-down' },
          { value: 'right', words: t`Right`, testId: 'room-right' },
        ]}
      />
      <Switch
        label={t`What leaves the sheet goes to the next page`}
        on={settings.toNext}
        testId="room-next"
        onChange={(toNext) => tools.change(room, { toNext })}
      />
    </Unfolded>
  );
}
