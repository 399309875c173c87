import { EraserIcon } from '@phosphor-icons/react';
import { Segments, Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import { EraserHand, type EraserSettings } from '../hand/eraserHand';
import type { PanelProps, Tool } from '../hand/tool';
import { Unfolded } from './Unfolded';

/** Rubbing out. */
export const eraser: Tool<EraserSettings> = {
  name: 'eraser',
  words: () => 'Eraser',
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
    <Unfolded title="Eraser" testId="eraser-settings">
      <Segments
        label="What goes"
        columns={1}
        value={settings.way}
        onValue={(way) => change({ way })}
        options={[
          { value: 'touched', words: 'What it touches', testId: 'erase-part' },
          { value: 'whole', words: 'Whole strokes and shapes', testId: 'erase-whole' },
          { value: 'loop', words: 'All inside a loop', testId: 'erase-loop' },
        ]}
      />
      {settings.way !== 'loop' && (
        <Slider
          label="Size"
          value={settings.size}
          min={30}
          max={2000}
          step={10}
          testId="eraser-size"
          words={(size) => `${(size / 100).toFixed(1)} mm`}
          onValue={(size) => change({ size })}
        />
      )}
      <Switch
        label="Only highlighter"
        on={settings.onlyHighlighter}
        testId="erase-highlighter"
        onChange={(onlyHighlighter) => change({ onlyHighlighter })}
      />
      <Switch
        label="Only the layer I write on"
        on={settings.onlyLayer}
        testId="erase-layer"
        onChange={(onlyLayer) => change({ onlyLayer })}
      />
      <Switch
        label="Back to the pen afterwards"
        on={settings.back}
        testId="erase-back"
        onChange={(back) => change({ back })}
      />
      <Switch
        label="A tight zig-zag scratches out"
        on={tools.habits.scratch}
        testId="scratch"
        onChange={(scratch) => tools.changeHabits({ scratch })}
      />
      <button
        type="button"
        className="btn btn-ghost mt-2 h-11 min-h-11 w-full border-base-300 text-[13px] font-normal"
        data-testid="clear-page"
        onClick={sheet.clear}
      >
        Clear the page
      </button>
    </Unfolded>
  );
}
