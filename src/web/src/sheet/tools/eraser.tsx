import { Button } from '../../ui/Button';
import { t } from '@lingui/core/macro';
import { EraserIcon } from '@phosphor-icons/react';
import { Segments, Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import { EraserHand, type EraserSettings } from '../hand/eraserHand';
import type { PanelProps, Tool } from '../hand/tool';
import { Unfolded } from './Unfolded';
import { lengthWords } from '../../words/language';

/** Rubbing out. */
export const eraser: Tool<EraserSettings> = {
  name: 'eraser',
  words: () => t`Eraser`,
  icon: () => EraserIcon,
  key: 'e',
  first: { way: 'touched', size: 300, onlyHighlighter: false, onlyLayer: false, back: false },
  standIn: { finger: 'erase', does: 'erases', tail: true },
  Panel: EraserPanel,
  hold: (settings) => ({
    name: 'eraser',
    keepsToGuide: true,
    nib: settings.way === 'loop' ? undefined : { width: settings.size },
    takeUp: (at) => new EraserHand(at, settings),
  }),
};

function EraserPanel({ tools, sheet }: PanelProps) {
  const settings = tools.settingsOf(eraser);
  const change = (changed: Partial<EraserSettings>) => tools.change(eraser, changed);
  return (
    <Unfolded title={t`Eraser`} testId="eraser-settings">
      <Segments
        label={t`What goes`}
        columns={1}
        value={settings.way}
        onValue={(way) => change({ way })}
        options={[
          { value: 'touched', words: t`What it touches`, testId: 'erase-part' },
          { value: 'whole', words: t`Whole strokes and shapes`, testId: 'erase-whole' },
          { value: 'loop', words: t`All inside a loop`, testId: 'erase-loop' },
        ]}
      />
      {settings.way !== 'loop' && (
        <Slider
          label={t`Size`}
          value={settings.size}
          min={30}
          max={2000}
          step={10}
          testId="eraser-size"
          words={(size) => lengthWords(size, 1)}
          onValue={(size) => change({ size })}
        />
      )}
      <Switch
        label={t`Only highlighter`}
        on={settings.onlyHighlighter}
        testId="erase-highlighter"
        onChange={(onlyHighlighter) => change({ onlyHighlighter })}
      />
      <Switch
        label={t`Only the layer I write on`}
        on={settings.onlyLayer}
        testId="erase-layer"
        onChange={(onlyLayer) => change({ onlyLayer })}
      />
      <Switch
        label={t`Back to the pen afterwards`}
        on={settings.back}
        testId="erase-back"
        onChange={(back) => change({ back })}
      />
      <Switch
        label={t`A tight zig-zag scratches out`}
        on={tools.habits.scratch}
        testId="scratch"
        onChange={(scratch) => tools.changeHabits({ scratch })}
      />
      <Button
        look="plain"
        className="mt-2 w-full border-base-300 text-[13px]"
        data-testid="clear-page"
        onClick={sheet.clear}
      >{t`Clear the page`}</Button>
    </Unfolded>
  );
}
