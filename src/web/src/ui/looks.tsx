import { colours } from '../model/items';
import { fillOf } from '../model/colours';
import { NodeIcon, nodeIcons } from './NodeIcon';

export function ColourField({ value, onChange }: { value: string; onChange: (colour: string) => void }) {
  return (
    <fieldset className="mt-3 flex gap-1">
      <legend className="mb-1 font-semibold">Colour</legend>
      {colours.map((one) => (
        <button
          key={one}
          type="button"
          aria-label={one}
          title={one}
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
      <legend className="mb-1 font-semibold">Icon</legend>
      {!needed && (
        <button
          type="button"
          aria-pressed={value === ''}
          onClick={() => onChange('')}
          className={`h-10 rounded-md border px-2.5 ${value === '' ? 'border-primary font-semibold' : 'border-base-300'}`}
        >
          None
        </button>
      )}
      {Object.keys(nodeIcons).map((one) => (
        <button
          key={one}
          type="button"
          aria-label={one}
          title={one}
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
