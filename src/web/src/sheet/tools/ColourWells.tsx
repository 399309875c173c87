import { SignButton } from '../../ui/Button';
import { t } from '@lingui/core/macro';
import {
  ArrowDownIcon,
  ArrowUpIcon,
  DotsThreeIcon,
  EyedropperIcon,
  PencilSimpleIcon,
  PlusIcon,
  TrashIcon,
} from '@phosphor-icons/react';
import { useState } from 'react';
import { say } from '../../ui/saying';
import { useAct } from '../../data/doing';
import { NameDialog } from '../../ui/naming';
import { usePersonal } from '../../data/usePersonal';
import { Menu } from '../../ui/Menu';
import { mostInOne, mostOwn, type Palette, readHex, shipped, withRecent } from '../../model/palettes';
import { inks } from '../../model/pens';

interface ColourWellsProps {
  colour: string;
  onColour: (colour: string) => void;
  /** Picks a colour from the page. */
  onPick?: () => void;
}

/** Colours as wells: a palette, those used last, a field for a hexadecimal one, and a pipette. */
export function ColourWells({ colour, onColour, onPick }: ColourWellsProps) {
  const personal = usePersonal();
  const [chosen, setChosen] = useState(t`Workbench`);
  const [typed, setTyped] = useState<string>();
  const [renaming, setRenaming] = useState(false);
  const act = useAct();
  const all = personal?.palettes.own ?? [];
  const palettes = [...shipped, ...all];
  const palette = palettes.find((one) => one.name === chosen) ?? palettes[0]!;
  const own = all.find((one) => one.name === palette.name);
  const setOwn = (changed: Palette[]) => personal?.setPalettes({ recent: personal.palettes.recent, own: changed });
  const moved = (by: number) => {
    const at = all.indexOf(own!);
    const to = Math.max(0, Math.min(all.length - 1, at + by));
    return all.toSpliced(at, 1).toSpliced(to, 0, own!);
  };
  const take = (next: string) => {
    onColour(next);
    setTyped(undefined);
    if (personal && !palette.colours.includes(next)) personal.setPalettes(withRecent(personal.palettes, next));
  };
  const keepInOwn = () => {
    if (!personal) return;
    const { recent } = personal.palettes;
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
      if (all.length >= mostOwn) return say(t`There is room for ${mostOwn} palettes of your own. Remove one first.`);
      const name = ['', ...Array.from({ length: mostOwn }, (_, i) => ` ${i + 2}`)]
        .map((number) => `${t`My colours`}${number}`)
        .find((one) => !palettes.some((palette) => palette.name === one))!;
      personal.setPalettes({ recent, own: [...all, { name, colours: [colour] }] });
      setChosen(name);
    }
  };
  return (
    <div className="mt-2.5">
      <div className="flex items-center gap-1">
        <select
          aria-label={t`Palette`}
          data-testid="palette"
          className="select select-sm h-9 min-w-0 grow border-base-300 bg-base-100 text-[13px]"
          value={palette.name}
          onChange={(event) => setChosen(event.target.value)}
        >
          {palettes.map((one) => (
            <option key={one.name}>{one.name}</option>
          ))}
        </select>
        {own && (
          <Menu
            label={t`More for the palette ${own.name}`}
            testId="palette-menu"
            icon={<DotsThreeIcon size={20} />}
            entries={[
              {
                label: t`Rename`,
                testId: 'palette-rename',
                icon: <PencilSimpleIcon size={20} weight="light" />,
                onChoose: () => setRenaming(true),
              },
              {
                label: t`Earlier in the list`,
                testId: 'palette-up',
                icon: <ArrowUpIcon size={20} weight="light" />,
                onChoose: () => setOwn(moved(-1)),
              },
              {
                label: t`Later in the list`,
                testId: 'palette-down',
                icon: <ArrowDownIcon size={20} weight="light" />,
                onChoose: () => setOwn(moved(1)),
              },
              {
                label: t`Remove it`,
                testId: 'palette-remove',
                icon: <TrashIcon size={20} weight="light" />,
                onChoose: () => {
                  act(t`Removed the palette “${own.name}”.`, () => setOwn(all.filter((one) => one !== own)));
                  setChosen(shipped[0]!.name);
                },
              },
            ]}
          />
        )}
        <SignButton
          label={t`Keep this colour`}
          title={own ? t`Keep this colour here` : t`Keep this colour in a palette of your own`}
          data-testid="keep-colour"
          onClick={keepInOwn}
        >
          <PlusIcon size={18} />
        </SignButton>
      </div>
      {renaming && own && (
        <NameDialog
          title={t`Rename the palette “${own.name}”`}
          confirm={t`Rename`}
          name={own.name}
          onConfirm={(name) => {
            const called = name.trim();
            if (!called) throw new Error(t`A palette needs a name.`);
            if (palettes.some((one) => one !== own && one.name === called))
              throw new Error(t`Another palette is called that.`);
            setOwn(all.map((one) => (one === own ? { ...one, name: called.slice(0, 40) } : one)));
            setChosen(called.slice(0, 40));
          }}
          onClose={() => setRenaming(false)}
        />
      )}
      <Wells label={palette.name} colours={palette.colours} colour={colour} onColour={take} />
      {personal && personal.palettes.recent.length > 0 && (
        <>
          <p className="mt-1 text-[12.5px] text-quiet">{t`Used last`}</p>
          <Wells label={t`Used last`} colours={personal.palettes.recent.slice(0, 5)} colour={colour} onColour={take} />
        </>
      )}
      <div className="mt-1.5 flex gap-1.5">
        <input
          aria-label={t`Colour as a hexadecimal number`}
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
            title={t`Pick a colour from the page`}
            aria-label={t`Pick a colour from the page`}
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
