import { EyedropperIcon, PlusIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { usePersonal } from '../../library/usePersonal';
import { mostInOne, mostOwn, readHex, shipped, withRecent } from '../ink/palettes';
import { inks } from '../ink/pens';

interface ColourWellsProps {
  colour: string;
  onColour: (colour: string) => void;
  /** Picks a colour from the page. */
  onPick?: () => void;
}

/** Colours as wells: a palette, those used last, a field for a hexadecimal one, and a pipette. */
export function ColourWells({ colour, onColour, onPick }: ColourWellsProps) {
  const personal = usePersonal();
  const [chosen, setChosen] = useState('Workbench');
  const [typed, setTyped] = useState<string>();
  const palettes = [...shipped, ...(personal?.palettes.own ?? [])];
  const palette = palettes.find((one) => one.name === chosen) ?? palettes[0]!;
  const own = personal?.palettes.own.find((one) => one.name === palette.name);
  const take = (next: string) => {
    onColour(next);
    setTyped(undefined);
    if (personal && !palette.colours.includes(next)) personal.setPalettes(withRecent(personal.palettes, next));
  };
  const keepInOwn = () => {
    if (!personal) return;
    const { own: all, recent } = personal.palettes;
    if (own)
      personal.setPalettes({
        recent,
        own: all.map((one) =>
          one === own && !one.colours.includes(colour)
            ? { ...one, colours: [...one.colours, colour].slice(-mostInOne) }
            : one,
        ),
      });
    else {
      const name = `My colours${all.length > 0 ? ` ${all.length + 1}` : ''}`;
      if (all.length < mostOwn) personal.setPalettes({ recent, own: [...all, { name, colours: [colour] }] });
      setChosen(name);
    }
  };
  return (
    <div className="mt-2.5">
      <div className="flex items-center gap-1">
        <select
          aria-label="Palette"
          data-testid="palette"
          className="select select-sm h-9 min-w-0 grow border-base-300 bg-base-100 text-[13px]"
          value={palette.name}
          onChange={(event) => setChosen(event.target.value)}
        >
          {palettes.map((one) => (
            <option key={one.name}>{one.name}</option>
          ))}
        </select>
        <button
          type="button"
          title={own ? 'Keep this colour here' : 'Keep this colour in a palette of your own'}
          aria-label="Keep this colour"
          data-testid="keep-colour"
          className="grid size-10 shrink-0 place-items-center rounded-md hover:bg-base-200"
          onClick={keepInOwn}
        >
          <PlusIcon size={18} />
        </button>
      </div>
      <Wells label={palette.name} colours={palette.colours} colour={colour} onColour={take} />
      {personal && personal.palettes.recent.length > 0 && (
        <>
          <p className="mt-1 text-[12.5px] text-quiet">Used last</p>
          <Wells label="Used last" colours={personal.palettes.recent.slice(0, 5)} colour={colour} onColour={take} />
        </>
      )}
      <div className="mt-1.5 flex gap-1.5">
        <input
          aria-label="Colour as a hexadecimal number"
          data-testid="hex"
          className="h-10 min-w-0 grow rounded-md border border-base-300 bg-base-100 px-2 font-mono text-[13px] aria-[invalid=true]:border-error"
          aria-invalid={typed !== undefined && readHex(typed) === undefined}
          value={typed ?? colour}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            const read = readHex(typed ?? '');
            if (event.key === 'Enter' && read) take(read);
          }}
          onBlur={() => {
            const read = readHex(typed ?? '');
            if (read) take(read);
            else setTyped(undefined);
          }}
        />
        {onPick && (
          <button
            type="button"
            title="Pick a colour from the page"
            aria-label="Pick a colour from the page"
            data-testid="pick-colour"
            className="grid size-10 shrink-0 place-items-center rounded-md border border-base-300 hover:border-primary"
            onClick={onPick}
          >
            <EyedropperIcon size={20} weight="light" />
          </button>
        )}
      </div>
    </div>
  );
}

function Wells({
  label,
  colours,
  colour,
  onColour,
}: {
  label: string;
  colours: readonly string[];
  colour: string;
  onColour: (colour: string) => void;
}) {
  return (
    <div role="group" aria-label={label} className="flex flex-wrap">
      {colours.map((one) => {
        const name = inks.find((ink) => ink.colour === one)?.name;
        return (
          <button
            key={one}
            type="button"
            aria-label={name ?? one}
            title={name ?? one}
            aria-pressed={colour === one}
            data-testid={name ? `ink-${name.toLowerCase()}` : 'ink'}
            onClick={() => onColour(one)}
            className="grid size-10 place-items-center"
          >
            <span
              className={`size-6 rounded-full border border-base-content/15 ${colour === one ? 'outline-2 outline-offset-2 outline-primary' : ''}`}
              style={{ background: one }}
            />
          </button>
        );
      })}
    </div>
  );
}
