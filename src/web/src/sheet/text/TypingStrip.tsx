import { t } from '@lingui/core/macro';
import {
  CheckIcon,
  CheckSquareIcon,
  DotsThreeIcon,
  EyedropperIcon,
  type Icon,
  ListBulletsIcon,
  ListNumbersIcon,
  ListPlusIcon,
  PaintRollerIcon,
  PaletteIcon,
  ParagraphIcon,
  TableIcon,
  TextAlignCenterIcon,
  TextAlignJustifyIcon,
  TextAlignLeftIcon,
  TextAlignRightIcon,
  TextBIcon,
  TextIndentIcon,
  TextItalicIcon,
  TextOutdentIcon,
  TextStrikethroughIcon,
  TextSubscriptIcon,
  TextSuperscriptIcon,
  TextUnderlineIcon,
} from '@phosphor-icons/react';
import { type ReactNode, useState } from 'react';
import type { Seen } from '../../core/seenBridge';
import { SignButton } from '../../ui/Button';
import { say } from '../../ui/saying';
import { Slider } from '../../ui/Slider';
import { ColourWells } from '../tools/ColourWells';
import { StyleChoice, Typeface, TypeSize } from '../tools/TextChoices';
import { type Family, type Style, usualSize } from '../tools/textStyles';
import { type SeenActs, seenIcons, SeenOffers, seenWords } from './SeenOffers';
import { TablePart } from './TablePart';
import type { Looks, Trait } from './told';
import type { Typing } from './typing';

const stripHeight = 46;
const partWidth = 44;
/** Its edges, and what lies between them and its parts. */
const stripEdges = 8;
/** So wide is what unfolds, as far as it needs. */
const leastWidth = 290;
const panelHeight = 250;
const tablePartHeight = 470;
/** Less is no room to unfold in, pixels. */
const leastUnfolded = 180;
/** It keeps so far from the text. */
const off = 10;

type Part = 'style' | 'weight' | 'list' | 'colour' | 'more' | 'table' | 'seen';

interface TypingStripProps {
  typing: Typing;
  /** Where what is typed into begins, and where its upper and its lower edge are, pixels. */
  left: number;
  head: number;
  foot: number;
  /** How much room there is, pixels. */
  room: { width: number; height: number };
  /** What is seen on the page, and can be done with it. */
  seen: Seen[];
  acts: SeenActs;
  onLeave: () => void;
  /** Plots what stands in a table. */
  onPlot: (table: string) => void;
}

/** What can be done with a text while one types: five small things at its lower edge, each of which unfolds what belongs to it. */
export function TypingStrip({
  typing,
  left: wishedLeft,
  head,
  foot,
  room,
  seen,
  acts,
  onLeave,
  onPlot,
}: TypingStripProps) {
  const [unfoldedPart, setOpen] = useState<Part>();
  const { from, to } = typing.selection;
  const here = seen.find((one) => one.item === typing.item && from === to && one.from <= from && from <= one.to);
  const open = unfoldedPart === 'seen' && !here ? undefined : unfoldedPart;
  // Where there is no room below the text, it stands above it; and where there is none either, at the foot. There it unfolds upwards.
  const top = foot + off;
  const below = room.height - top - stripHeight - 14;
  const above = head - off - stripHeight - 14;
  const needed = open === 'table' ? tablePartHeight : panelHeight;
  const isAbove = below < needed && above >= Math.max(leastUnfolded, below);
  const upward = isAbove || (below < needed && top > below);
  const roomUp = isAbove ? above : Math.min(top, room.height - stripHeight) - 14;
  const unfolded = Math.max(leastUnfolded, upward ? roomUp : below);
  const bottom = isAbove ? room.height - head + off : Math.max(8, room.height - top - stripHeight);
  const looks = open && typing.looks;
  const set = (trait: Trait, value: string) => typing.format(trait, value);
  const parts: [Part, string, Icon][] = [
    ['style', t`Kind of paragraph`, ParagraphIcon],
    ['weight', t`Weight`, TextBIcon],
    ['list', t({ message: 'List', context: 'of paragraphs' }), ListBulletsIcon],
    ['colour', t`Colour`, PaletteIcon],
    ['more', t`More`, DotsThreeIcon],
    ...(typing.told?.cell ? [['table', t`Table`, TableIcon] as [Part, string, Icon]] : []),
    ...(here ? [['seen', t`What can be done with “${here.words}”`, seenIcons[here.kind]] as [Part, string, Icon]] : []),
  ];
  const width = Math.max((parts.length + 1) * partWidth + stripEdges, leastWidth);
  const left = Math.max(8, Math.min(wishedLeft, room.width - width - 8));
  return (
    <div
      role="toolbar"
      aria-label={t`What can be done with the text`}
      tabIndex={-1}
      data-testid="typing-strip"
      className={`pointer-events-auto absolute flex items-start gap-1.5 outline-none ${upward ? 'flex-col-reverse' : 'flex-col'}`}
      style={upward ? { left, bottom } : { left, top }}
      onKeyDown={(event) => event.key === 'Escape' && onLeave()}
      // The caret stays where it is.
      onPointerDown={(event) => {
        if (!(event.target as Element).closest('input, select')) event.preventDefault();
      }}
    >
      <div className="flex rounded-lg border border-base-300 bg-base-100 px-0.5 shadow-sm">
        {parts.map(([part, words, PartIcon]) => (
          <SignButton
            key={part}
            label={words}
            aria-expanded={open === part}
            data-testid={`typing-${part}`}
            className={open === part ? 'bg-base-200' : ''}
            onClick={() => setOpen(open === part ? undefined : part)}
          >
            <PartIcon size={20} weight="light" />
          </SignButton>
        ))}
        <SignButton label={t`Done typing`} data-testid="typing-done" onClick={onLeave}>
          <CheckIcon size={20} />
        </SignButton>
      </div>
      {open && (
        <div
          className="overflow-y-auto rounded-lg border border-base-300 bg-base-100 p-2 shadow-md"
          style={{ maxHeight: unfolded }}
          data-testid={`typing-${open}-panel`}
        >
          {open === 'style' && <StylePart looks={looks} set={set} typing={typing} />}
          {open === 'weight' && <WeightPart looks={looks} set={set} typing={typing} />}
          {open === 'list' && <ListPart looks={looks} set={set} />}
          {open === 'colour' && <ColourPart looks={looks} set={set} />}
          {open === 'more' && <MorePart looks={looks} set={set} />}
          {open === 'seen' && here && (
            <>
              <p className="max-w-[236px] px-2 pb-1 font-semibold [overflow-wrap:anywhere]" data-testid="seen-said">
                {seenWords(here)}
              </p>
              <SeenOffers
                seen={here}
                acts={{ ...acts, workOut: (sum) => typing.workOut(sum) }}
                onDone={() => setOpen(undefined)}
              />
            </>
          )}
          {open === 'table' && <TablePart typed={typing.table} onPlot={onPlot} />}
        </div>
      )}
    </div>
  );
}

interface PartProps {
  looks: Looks | undefined;
  set: (trait: Trait, value: string) => void;
}

/** Headings as deep as they stand in the contents. */
const levels: Partial<Record<string, string>> = { title: '1', heading: '1', subheading: '2' };

function StylePart({ looks, set, typing }: PartProps & { typing: Typing }) {
  const level = levels[looks?.style ?? ''];
  return (
    <div className="w-[236px]">
      <StyleChoice
        value={(looks?.style ?? '') as Style}
        family={(looks?.family || 'serif') as Family}
        testId="typing-style"
        onValue={(style) => set('style', style)}
      />
      {level && (
        <PartButton
          testId="into-contents"
          icon={ListPlusIcon}
          press={() => {
            typing.takeIntoContents(level);
            say(t`It stands in the contents now.`);
          }}
        >
          {t`Into the contents`}
        </PartButton>
      )}
    </div>
  );
}

function WeightPart({ looks, set, typing }: PartProps & { typing: Typing }) {
  const [, setKept] = useState(0);
  const size = Number(looks?.size) || usualSize[(looks?.style as Style) ?? ''] || usualSize[''];
  const shift = (to: string) => set('shift', looks?.shift === to ? '' : to);
  const flip = (trait: Trait) => set(trait, looks?.[trait] === '1' ? '' : '1');
  return (
    <div className="w-[270px]">
      <div className="flex" role="group" aria-label={t`Weight`}>
        <Sign label={t`Bold`} testId="bold" on={looks?.bold === '1'} icon={TextBIcon} press={() => flip('bold')} />
        <Sign
          label={t`Italic`}
          testId="italic"
          on={looks?.italic === '1'}
          icon={TextItalicIcon}
          press={() => flip('italic')}
        />
        <Sign
          label={t`Underlined`}
          testId="underline"
          on={looks?.underline === '1'}
          icon={TextUnderlineIcon}
          press={() => flip('underline')}
        />
        <Sign
          label={t`Struck out`}
          testId="struck"
          on={looks?.struck === '1'}
          icon={TextStrikethroughIcon}
          press={() => flip('struck')}
        />
        <Sign
          label={t`Raised`}
          testId="raised"
          on={looks?.shift === 'raised'}
          icon={TextSuperscriptIcon}
          press={() => shift('raised')}
        />
        <Sign
          label={t`Lowered`}
          testId="lowered"
          on={looks?.shift === 'lowered'}
          icon={TextSubscriptIcon}
          press={() => shift('lowered')}
        />
      </div>
      <TypeSize value={size} testId="typing-size" onValue={(tenths) => set('size', String(tenths))} />
      <Typeface
        value={looks?.family === null ? undefined : looks?.family || 'serif'}
        testId="typing-family"
        onValue={(family) => set('family', family === 'serif' ? '' : family)}
      />
      <div className="flex gap-1">
        <PartButton
          testId="keep-look"
          icon={EyedropperIcon}
          press={() => {
            typing.keepLook();
            setKept((count) => count + 1);
          }}
        >
          {t`Take this look`}
        </PartButton>
        <PartButton
          testId="give-look"
          icon={PaintRollerIcon}
          isOff={!typing.hasKeptLook}
          press={() => typing.giveLook()}
        >
          {t`Give that look`}
        </PartButton>
      </div>
    </div>
  );
}

function ListPart({ looks, set }: PartProps) {
  const list = (to: string) => set('list', looks?.list === to ? '' : to);
  const depth = Number(looks?.indent) || 0;
  return (
    <div className="flex" role="group" aria-label={t({ message: 'List', context: 'of paragraphs' })}>
      <Sign
        label={t`Dots`}
        testId="bullets"
        on={looks?.list === 'bullet'}
        icon={ListBulletsIcon}
        press={() => list('bullet')}
      />
      <Sign
        label={t`Numbers`}
        testId="numbers"
        on={looks?.list === 'number'}
        icon={ListNumbersIcon}
        press={() => list('number')}
      />
      <Sign
        label={t`Boxes to tick`}
        testId="ticks"
        on={looks?.list === 'tick'}
        icon={CheckSquareIcon}
        press={() => list('tick')}
      />
      <Sign
        label={t`A step out`}
        testId="outdent"
        icon={TextOutdentIcon}
        press={() => set('indent', depth > 1 ? String(depth - 1) : '')}
      />
      <Sign
        label={t`A step in`}
        testId="indent"
        icon={TextIndentIcon}
        press={() => set('indent', String(Math.min(depth + 1, mostDepth)))}
      />
    </div>
  );
}

/** As WritingRules.MostIndent. */
const mostDepth = 8;

function ColourPart({ looks, set }: PartProps) {
  const [part, setPart] = useState<'colour' | 'marker'>('colour');
  const standing = looks?.[part] ?? '';
  return (
    <div className="w-[214px]">
      <div className="flex gap-1" role="group" aria-label={t`Letters or marker`}>
        {(['colour', 'marker'] as const).map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={part === one}
            data-testid={`typing-${one === 'colour' ? 'letters' : 'marker'}`}
            onClick={() => setPart(one)}
            className={`h-11 grow rounded-md border px-2 text-[13px] ${part === one ? 'border-primary bg-base-200' : 'border-base-300'}`}
          >
            {one === 'colour' ? t`Letters` : t`Marker behind`}
          </button>
        ))}
      </div>
      <ColourWells
        colour={standing ? `#${standing.slice(0, 6)}` : ''}
        onColour={(colour) => set(part, `${colour.slice(1)}${part === 'marker' ? markerAlpha : 'ff'}`)}
      />
      <button
        type="button"
        data-testid="typing-no-colour"
        className="mt-1 h-11 w-full rounded-md text-[13px] hover:bg-base-200"
        onClick={() => set(part, '')}
      >
        {part === 'colour' ? t`As usual` : t`No marker`}
      </button>
    </div>
  );
}

/** A marker behind letters covers this much. */
const markerAlpha = '66';

function MorePart({ looks, set }: PartProps) {
  const leading = Number(looks?.leading) || 100;
  const align = looks?.align ?? '';
  return (
    <div className="w-[224px]">
      <div className="flex" role="group" aria-label={t`Where lines stand`}>
        <Sign
          label={t`Left`}
          testId="align-left"
          on={align === ''}
          icon={TextAlignLeftIcon}
          press={() => set('align', '')}
        />
        <Sign
          label={t`In the middle`}
          testId="align-centre"
          on={align === 'centre'}
          icon={TextAlignCenterIcon}
          press={() => set('align', 'centre')}
        />
        <Sign
          label={t`Right`}
          testId="align-right"
          on={align === 'right'}
          icon={TextAlignRightIcon}
          press={() => set('align', 'right')}
        />
        <Sign
          label={t`At both edges`}
          testId="align-justified"
          on={align === 'justified'}
          icon={TextAlignJustifyIcon}
          press={() => set('align', 'justified')}
        />
      </div>
      <Slider
        label={t`Distance of lines`}
        value={leading}
        min={80}
        max={250}
        step={5}
        testId="typing-leading"
        words={(share) => `${share} %`}
        onValue={(share) => set('leading', share === 100 ? '' : String(share))}
      />
    </div>
  );
}

function PartButton({
  testId,
  icon: Of,
  isOff = false,
  press,
  children,
}: {
  testId: string;
  icon: Icon;
  isOff?: boolean;
  press: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      data-testid={`typing-${testId}`}
      disabled={isOff}
      className="mt-1 flex h-11 grow items-center justify-center gap-1.5 rounded-md border border-base-300 px-2 text-[13px] hover:bg-base-200 disabled:opacity-50"
      onClick={press}
    >
      <Of size={18} weight="light" />
      {children}
    </button>
  );
}

function Sign({
  label,
  testId,
  on,
  icon: Of,
  press,
}: {
  label: string;
  testId: string;
  on?: boolean;
  icon: Icon;
  press: () => void;
}): ReactNode {
  return (
    <SignButton
      label={label}
      aria-pressed={on}
      data-testid={`typing-${testId}`}
      className={on ? 'bg-base-200 text-primary' : ''}
      onClick={press}
    >
      <Of size={20} weight={on ? 'regular' : 'light'} />
    </SignButton>
  );
}
