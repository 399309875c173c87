import { t } from '@lingui/core/macro';
import { RulerIcon } from '@phosphor-icons/react';
import { Segments } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import { unfolding } from './offering';
import type { Offer, PanelProps } from '../hand/tool';
import { Unfolded } from './Unfolded';
import { lengthWords } from '../../words/language';

const rulerHalf = 7_500;
const firstRadius = 2_500;

/** A ruler or a compass on the page. */
export const guide: Offer = {
  ...unfolding('guide'),
  words: () => t`Ruler`,
  title: t`Ruler and compass`,
  icon: () => RulerIcon,
  key: 'u',
  isOn: (tools) => tools.guide !== undefined || tools.open === 'guide',
  Panel: GuidePanel,
};

/** Lays a ruler or a compass on the page, or takes it away. */
function GuidePanel({ tools, sheet: { middle } }: PanelProps) {
  const { guide } = tools;
  const lay = (round: boolean) =>
    tools.setGuide({
      round,
      ...(guide ? { x: guide.x, y: guide.y } : middle()),
      angle: 0,
      size: round ? firstRadius : rulerHalf,
    });
  return (
    <Unfolded
      title={guide?.round ? t`Compass` : t`Ruler`}
      testId="guide-settings"
      hint={t`Ink that begins at its edge keeps to it. Move it by its body, turn it by its end; arrow keys move it, comma and full stop turn it.`}
    >
      <Segments
        label={t`What lies on the page`}
        value={guide ? (guide.round ? 'compass' : 'ruler') : 'none'}
        onValue={(what) => (what === 'none' ? tools.setGuide(undefined) : lay(what === 'compass'))}
        options={[
          { value: 'none', words: t`None`, testId: 'guide-none' },
          { value: 'ruler', words: t`Ruler`, testId: 'guide-ruler' },
          { value: 'compass', words: t`Compass`, testId: 'guide-compass' },
        ]}
      />
      {guide && !guide.round && (
        <Slider
          label={t`Angle`}
          value={((guide.angle % 180) + 180) % 180}
          min={0}
          max={175}
          step={5}
          testId="guide-angle"
          words={(angle) => `${Math.round(angle)}°`}
          onValue={(angle) => tools.setGuide({ ...guide, angle })}
        />
      )}
      {guide && (
        <Slider
          label={guide.round ? t`Radius` : t`Length`}
          value={guide.round ? guide.size : guide.size * 2}
          min={guide.round ? 200 : 4000}
          max={guide.round ? 10000 : 30000}
          step={guide.round ? 100 : 1000}
          testId="guide-size"
          words={(size) => lengthWords(size, 0)}
          onValue={(size) => tools.setGuide({ ...guide, size: guide.round ? size : size / 2 })}
        />
      )}
    </Unfolded>
  );
}
