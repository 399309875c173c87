import { Toggle } from './Button';
import { t } from '@lingui/core/macro';
import { colours } from '../model/items';
import { fillOf } from '../model/colours';
import { iconWords, NodeIcon, nodeIcons } from './NodeIcon';

const colourWords: Record<(typeof colours)[number], string> = {
  spruce: t`spruce`,
  madder: t`madder`,
  sky: t`sky`,
  gold: t`gold`,
  plum: t`plum`,
  lichen: t`lichen`,
};

export function ColourField({ value, onChange }: { value: string; onChange: (colour: string) => void }) {
  return (
    <fieldset className="mt-3 flex gap-1">
      <legend className="mb-1 font-semibold">{t`Colour`}</legend>
      {colours.map((one) => (
        <button
          key={one}
          type="button"
          aria-label={colourWords[one]}
          title={colourWords[one]}
          aria-pressed={value === one}
          onClick={() => onChange(one)}
          className="grid size-10 place-items-center rounded-full"
        >
          <span
            className={`size-7 rounded-full ${fillOf[one]} ${value === one ? 'outline-2 outline-offset-2 outline-primary' : ''}`}
          />
        </button>
      ))}
    </fieldset>
  );
}

export function IconField({
  value,
  onChange,
  needed,
}: {
  value: string;
  onChange: (icon: string) => void;
  needed?: boolean;
}) {
  return (
    <fieldset className="mt-3 flex flex-wrap gap-1">
      <legend className="mb-1 font-semibold">{t`Icon`}</legend>
      {!needed && <Toggle on={value === ''} onClick={() => onChange('')}>{t`None`}</Toggle>}
      {Object.keys(nodeIcons).map((one) => (
        <button
          key={one}
          type="button"
          aria-label={iconWords[one]}
          title={iconWords[one]}
          aria-pressed={value === one}
          onClick={() => onChange(one)}
          className={`grid size-10 place-items-center rounded-md border ${value === one ? 'border-primary bg-base-200' : 'border-transparent hover:border-base-300'}`}
        >
          <NodeIcon name={one} size={22} />
        </button>
      ))}
    </fieldset>
  );
}
