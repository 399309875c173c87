import { t } from '@lingui/core/macro';
import { PencilSimpleIcon, StampIcon, TrashIcon } from '@phosphor-icons/react';
import { useRef, useState } from 'react';
import { sentenceOf } from '../../core/runtime';
import { pictureTypes } from '../../data/pictureFiles';
import { bringStamp, keepPictureStamp, type StampOffer, stampUses, useStamps } from '../../data/stamps';
import { useWorkspace } from '../../data/useWorkspace';
import { Button } from '../../ui/Button';
import { NameDialog } from '../../ui/naming';
import { say } from '../../ui/saying';
import { Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import { lengthWords } from '../../words/language';
import { stampHand, type StampSettings } from '../hand/stampHand';
import type { PanelProps, Tool } from '../hand/tool';
import { ColourWells } from './ColourWells';
import { StampFace } from './StampFace';
import { Unfolded } from './Unfolded';

/** Laying down what was kept, again and again. */
export const stamp: Tool<StampSettings> = {
  name: 'stamp',
  words: () => t`Stamp`,
  icon: () => StampIcon,
  key: 'q',
  first: { stamp: '', width: 0, colour: '' },
  unfolds: true,
  Panel: StampPanel,
  hold: (settings) => ({
    name: 'stamp',
    leavesInk: true,
    takeUp: (at) => stampHand(at, settings),
  }),
};

const faceSize = 40;
/** So many of the most used stand first. */
const mostUsed = 6;
const usualColour = '#b4533c';

function byCategory(stamps: StampOffer[]): [string, StampOffer[]][] {
  const groups = new Map<string, StampOffer[]>();
  for (const one of stamps) groups.set(one.category, [...(groups.get(one.category) ?? []), one]);
  return [...groups];
}

/** The stamp box: the most used first, then by category. */
function StampPanel({ tools, sheet }: PanelProps) {
  const workspace = useWorkspace();
  const settings = tools.settingsOf(stamp);
  const change = (changed: Partial<StampSettings>) => tools.change(stamp, changed);
  const { stamps, shelves } = useStamps(sheet.core);
  const [renaming, setRenaming] = useState(false);
  const picture = useRef<HTMLInputElement>(null);
  const chosen = stamps.find((one) => one.key === settings.stamp);
  const uses = stampUses();
  const often = stamps
    .filter((one) => uses[one.key])
    .sort((a, b) => uses[b.key]! - uses[a.key]!)
    .slice(0, mostUsed);
  const choose = (one: StampOffer) => {
    change({ stamp: one.key });
    bringStamp(workspace, one).then(
      (piece) => piece || say(t`This stamp is not here yet. It comes with a connection.`),
      (problem: unknown) => say(sentenceOf(problem)),
    );
  };
  const libraryOf = ({ kept }: StampOffer) => shelves.find(({ library }) => library.space === kept?.space)?.library;
  const groups: [string, StampOffer[]][] = [
    ...(often.length > 0 ? [[t`Used most`, often] as [string, StampOffer[]]] : []),
    ...byCategory(stamps),
  ];
  return (
    <Unfolded
      title={t`Stamps`}
      testId="stamp-settings"
      hint={t`Press where one is to lie, or drag as wide as it is to be.`}
      roomy
    >
      {chosen && (
        <div className="mt-2 flex items-center gap-3 border-b border-base-300 pb-2">
          <StampFace stamp={chosen} size={56} />
          <div className="min-w-0 grow">
            <p className="truncate font-semibold" data-testid="stamp-chosen">
              {chosen.name}
            </p>
            <p className="truncate text-[13px] text-quiet">{chosen.category}</p>
          </div>
          {chosen.isOpen && libraryOf(chosen) && (
            <>
              <button
                type="button"
                className="grid size-11 place-items-center rounded-md hover:bg-base-200"
                aria-label={t`Rename “${chosen.name}”`}
                data-testid="stamp-rename"
                onClick={() => setRenaming(true)}
              >
                <PencilSimpleIcon size={20} weight="light" />
              </button>
              <button
                type="button"
                className="grid size-11 place-items-center rounded-md hover:bg-base-200"
                aria-label={t`Put “${chosen.name}” into the bin`}
                data-testid="stamp-bin"
                onClick={() => {
                  libraryOf(chosen)!.toBin(chosen.kept!.id);
                  say(t`“${chosen.name}” is in the bin.`);
                }}
              >
                <TrashIcon size={20} weight="light" />
              </button>
            </>
          )}
        </div>
      )}
      <Slider
        label={t`Width`}
        value={settings.width}
        min={0}
        max={12_000}
        step={100}
        testId="stamp-width"
        words={(width) => (width === 0 ? t`as it was kept` : lengthWords(width, 0))}
        onValue={(width) => change({ width })}
      />
      <Switch
        label={t`All of one colour`}
        on={settings.colour !== ''}
        testId="stamp-dyed"
        onChange={(on) => change({ colour: on ? usualColour : '' })}
      />
      {settings.colour && <ColourWells colour={settings.colour} onColour={(colour) => change({ colour })} />}
      {groups.map(([category, inIt]) => (
        <div key={category} role="group" aria-label={category}>
          <h3 className="mt-3 text-[13px] text-quiet">{category}</h3>
          <div className="mt-1 flex flex-wrap gap-1">
            {inIt.map((one) => (
              <button
                key={one.key}
                type="button"
                aria-pressed={settings.stamp === one.key}
                aria-label={one.name}
                title={one.name}
                data-testid="stamp"
                data-name={one.name}
                onClick={() => choose(one)}
                className={`grid size-[50px] place-items-center rounded-md border ${settings.stamp === one.key ? 'border-primary bg-base-200' : 'border-base-300 hover:bg-base-200'}`}
              >
                <StampFace stamp={one} size={faceSize} />
              </button>
            ))}
          </div>
        </div>
      ))}
      {shelves.length > 0 && (
        <>
          <Button className="mt-3 w-full" data-testid="stamp-from-picture" onClick={() => picture.current!.click()}>
            {t`A picture as a stamp`}
          </Button>
          <input
            ref={picture}
            type="file"
            className="hidden"
            accept={pictureTypes}
            aria-label={t`A picture as a stamp`}
            data-testid="stamp-picture-file"
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = '';
              if (file)
                keepPictureStamp(workspace, shelves[0]!.library, file).then(
                  () => say(t`It is in your stamp box.`),
                  (problem: unknown) => say(sentenceOf(problem)),
                );
            }}
          />
        </>
      )}
      {renaming && chosen && (
        <NameDialog
          title={t`Rename the stamp`}
          confirm={t`Rename`}
          name={chosen.name}
          onConfirm={(name) => libraryOf(chosen)!.rename(chosen.kept!.id, name)}
          onClose={() => setRenaming(false)}
        />
      )}
    </Unfolded>
  );
}
