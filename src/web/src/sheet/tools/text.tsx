import { t } from '@lingui/core/macro';
import { TextTIcon } from '@phosphor-icons/react';
import { PickField } from '../../ui/PickField';
import { Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import { numberWords } from '../../words/language';
import { TextHand } from '../hand/textHand';
import type { PanelProps, Tool } from '../hand/tool';
import { ColourWells } from './ColourWells';
import { families, type Family, sampleOf, styles, type Style, usualSize } from './textStyles';
import { Unfolded } from './Unfolded';

/** How text looks that is begun anew. */
export interface TextSettings {
  style: Style;
  family: Family;
  /** 0.1 pt; 0 for as the style has it. */
  size: number;
  colour: string;
  /** Whether it stands on the paper's lines, where there are some. */
  onLines: boolean;
}

/** Typing. */
export const text: Tool<TextSettings> = {
  name: 'text',
  words: () => t`Text`,
  icon: () => TextTIcon,
  key: 't',
  first: { style: '', family: 'serif', size: 0, colour: '#22302e', onLines: true },
  Panel: TextPanel,
  hint: t`Press where the text is to begin, or drag a box for it.`,
  hold: () => ({ name: 'text', leavesInk: true, takeUp: (at) => new TextHand(at) }),
};

function TextPanel({ tools }: PanelProps) {
  const settings = tools.settingsOf(text);
  const change = (changed: Partial<TextSettings>) => tools.change(text, changed);
  const size = settings.size || usualSize[settings.style];
  return (
    <Unfolded title={t`Text`} testId="text-settings" aside={t`as usual for new text`}>
      <p
        aria-hidden="true"
        data-testid="text-sample"
        className="mt-2 grid h-14 place-items-center overflow-hidden rounded-md border border-base-300 bg-paper"
        style={{
          ...sampleOf(settings.style, settings.family),
          color: settings.colour,
          fontSize: `${Math.min(size / 7.5, 34)}px`,
        }}
      >
        {t`A calm quill`}
      </p>
      <div role="group" aria-label={t`Kind of paragraph`} className="mt-2 grid grid-cols-2 gap-1">
        {styles().map(({ value, words }) => (
          <button
            key={value}
            type="button"
            aria-pressed={settings.style === value}
            data-testid={`text-style-${value || 'body'}`}
            onClick={() => change({ style: value, size: 0 })}
            className={`h-11 truncate rounded-md border px-1.5 text-start ${settings.style === value ? 'border-primary bg-base-200' : 'border-transparent hover:border-base-300'}`}
            style={sampleOf(value, settings.family)}
          >
            {words}
          </button>
        ))}
      </div>
      <PickField
        label={t`Typeface`}
        testId="text-family"
        value={settings.family}
        onValue={(family) => change({ family: family as Family })}
        options={families().map(({ value, words }) => [value, words])}
      />
      <Slider
        label={t`Size`}
        value={size}
        min={60}
        max={480}
        step={5}
        testId="text-size"
        words={(tenths) => `${numberWords(tenths / 10, 1)} pt`}
        onValue={(tenths) => change({ size: tenths === usualSize[settings.style] ? 0 : tenths })}
      />
      <ColourWells colour={settings.colour} onColour={(colour) => change({ colour })} />
      <Switch
        label={t`Stands on the paper’s lines`}
        on={settings.onLines}
        testId="text-on-lines"
        onChange={(onLines) => change({ onLines })}
      />
    </Unfolded>
  );
}
