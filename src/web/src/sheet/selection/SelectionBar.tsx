import { Button } from '../../ui/Button';
import { t } from '@lingui/core/macro';
import {
  ArrowsOutLineHorizontalIcon,
  BoundingBoxIcon,
  CopyIcon,
  CopySimpleIcon,
  DotsThreeIcon,
  EraserIcon,
  FlagPennantIcon,
  FlipHorizontalIcon,
  FlipVerticalIcon,
  ImageIcon,
  LinkIcon,
  LinkSimpleIcon,
  ListPlusIcon,
  LockSimpleIcon,
  LockSimpleOpenIcon,
  PaletteIcon,
  ScissorsIcon,
  SelectionBackgroundIcon,
  StackIcon,
  StackSimpleIcon,
  TextAlignLeftIcon,
  XIcon,
} from '@phosphor-icons/react';
import { type ReactNode, useEffect, useState } from 'react';
import type { OpenDocument } from '../../sync/openDocument';
import { useWorkspace } from '../../data/useWorkspace';
import { Segments, Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import { itemKinds } from '../hand/things';
import { lineNumbers, penKindNumbers, penKinds, penNames } from '../../model/pens';
import type { View } from '../ink/view';
import { ColourWells } from '../tools/ColourWells';
import { nameOfLayer, useLayers } from '../tools/layers';
import { barPlace, type BarSide, toScreen } from './SelectionFrame';
import type { EvenWish, Selection } from './useSelection';
import { numberWords } from '../../words/language';

interface SelectionBarProps {
  selection: Selection;
  page: OpenDocument;
  view: View;
  side: BarSide;
  /** The desk's size, pixels. */
  size: { width: number; height: number };
  onLink: () => void;
  onMark: () => void;
  onHeading: () => void;
  onCopyLink: () => void;
}

type Unfolding = 'look' | 'more' | 'even';
const barWidth = 560;

/** What can be made of what was taken. One part unfolds below, in place. */
export function SelectionBar({
  selection,
  page,
  view,
  side,
  size,
  onLink,
  onMark,
  onHeading,
  onCopyLink,
}: SelectionBarProps) {
  const { core } = useWorkspace();
  const layers = useLayers(core, page);
  const [unfolded, setUnfolded] = useState<Unfolding>();
  const { taken, about } = selection;
  const box = toScreen(taken.area, view);
  const isInk = taken.items.length > 0;
  const toggle = (what: Unfolding) => setUnfolded(unfolded === what ? undefined : what);
  return (
    <div
      className={`pointer-events-none absolute z-20 flex gap-1.5 [&>*]:pointer-events-auto [&>:not([role=toolbar])]:min-h-0 [&>:not([role=toolbar])]:overflow-y-auto ${side === 'above' ? 'flex-col-reverse' : 'flex-col'}`}
      style={{
        left: `clamp(8px, ${box.left}px, max(8px, calc(100% - ${isInk ? barWidth : 300}px)))`,
        ...barPlace(side, box, size),
      }}
    >
      <div
        role="toolbar"
        aria-label={t`What was selected`}
        className="flex w-max max-w-full shrink-0 flex-wrap rounded-lg border border-base-300 bg-base-100 p-1 shadow-md"
      >
        {about.locked ? (
          <Press
            label={t`Unlock`}
            testId="unlock"
            icon={<LockSimpleOpenIcon size={20} weight="light" />}
            onPress={() => selection.lock(false)}
          />
        ) : (
          <>
            {isInk && (
              <Press
                label={t`Look`}
                testId="look-taken"
                on={unfolded === 'look'}
                icon={<PaletteIcon size={20} weight="light" />}
                onPress={() => toggle('look')}
              />
            )}
            {isInk && (
              <Press
                label={t`Copy`}
                testId="copy-taken"
                icon={<CopyIcon size={20} weight="light" />}
                onPress={selection.copy}
              />
            )}
            {isInk && (
              <Press
                label={t`Cut`}
                testId="cut-taken"
                icon={<ScissorsIcon size={20} weight="light" />}
                onPress={selection.cut}
              />
            )}
            {isInk && (
              <Press
                label={t`Double`}
                testId="duplicate-taken"
                icon={<CopySimpleIcon size={20} weight="light" />}
                onPress={selection.duplicate}
              />
            )}
            <Press label={t`Link`} testId="make-link" icon={<LinkIcon size={20} weight="light" />} onPress={onLink} />
            <Press
              label={t`Mark`}
              testId="make-mark"
              icon={<FlagPennantIcon size={20} weight="light" />}
              onPress={onMark}
            />
            {isInk && (
              <Press
                label={t`Contents`}
                testId="make-heading"
                icon={<ListPlusIcon size={20} weight="light" />}
                onPress={onHeading}
              />
            )}
            {isInk && (
              <Press
                label={t`Erase`}
                testId="erase-taken"
                icon={<EraserIcon size={20} weight="light" />}
                onPress={selection.erase}
              />
            )}
            {isInk ? (
              <Press
                label={t`More`}
                testId="more-taken"
                on={unfolded === 'more'}
                icon={<DotsThreeIcon size={20} />}
                onPress={() => toggle('more')}
              />
            ) : (
              <Press
                label={t`Copy link`}
                testId="copy-link"
                icon={<LinkSimpleIcon size={20} weight="light" />}
                onPress={onCopyLink}
              />
            )}
          </>
        )}
        <Press label={t`Leave`} testId="leave-taken" icon={<XIcon size={18} />} onPress={selection.leave} />
      </div>
      {unfolded === 'look' && <Look selection={selection} />}
      {unfolded === 'more' && (
        <div
          className="grid w-max grid-cols-5 rounded-lg border border-base-300 bg-base-100 p-1 shadow-md"
          data-testid="more-panel"
        >
          <Press
            label={t`To front`}
            testId="to-front"
            icon={<StackSimpleIcon size={20} weight="light" />}
            onPress={() => selection.order(true)}
          />
          <Press
            label={t`To back`}
            testId="to-back"
            icon={<SelectionBackgroundIcon size={20} weight="light" />}
            onPress={() => selection.order(false)}
          />
          <Press
            label={about.grouped ? t`Ungroup` : t`Group`}
            testId="group"
            icon={<StackIcon size={20} weight="light" />}
            onPress={() => selection.group(!about.grouped)}
          />
          <Press
            label={t`Lock`}
            testId="lock-taken"
            icon={<LockSimpleIcon size={20} weight="light" />}
            onPress={() => selection.lock(true)}
          />
          <Press
            label={t`Even lines`}
            testId="even-lines"
            icon={<TextAlignLeftIcon size={20} weight="light" />}
            onPress={() => setUnfolded('even')}
          />
          {selection.loosen && (
            <Press
              label={t`As drawn`}
              testId="as-drawn"
              icon={<BoundingBoxIcon size={20} weight="light" />}
              onPress={selection.loosen}
            />
          )}
          <Press
            label={t`Mirror`}
            testId="mirror"
            icon={<FlipHorizontalIcon size={20} weight="light" />}
            onPress={() => selection.mirror(true)}
          />
          <Press
            label={t`Upside down`}
            testId="flip"
            icon={<FlipVerticalIcon size={20} weight="light" />}
            onPress={() => selection.mirror(false)}
          />
          <Press
            label={t`As picture`}
            testId="copy-picture"
            icon={<ImageIcon size={20} weight="light" />}
            onPress={selection.copyPicture}
          />
          <Press
            label={t`Copy link`}
            testId="copy-link"
            icon={<LinkSimpleIcon size={20} weight="light" />}
            onPress={onCopyLink}
          />
          {layers.length > 1 && (
            <label className="flex h-11 flex-col justify-center px-1 text-xs">
              {t`Layer`}
              <select
                aria-label={t`Move to layer`}
                data-testid="to-layer"
                className="select select-xs h-7 w-[74px] border-base-300 bg-base-100"
                value={about.layer ?? ''}
                onChange={(event) => selection.restyle('layer', event.target.value)}
              >
                {about.layer === undefined && <option value="">{t`several`}</option>}
                {layers.map((layer) => (
                  <option key={layer.id} value={layer.id}>
                    {nameOfLayer(layer)}
                  </option>
                ))}
              </select>
            </label>
          )}
        </div>
      )}
      {unfolded === 'even' && <Even selection={selection} onDone={() => setUnfolded(undefined)} />}
    </div>
  );
}

/** How the selection looks; the tray stays as it is. */
function Look({ selection }: { selection: Selection }) {
  const { about } = selection;
  const canFill = (about.kinds & (itemKinds.shape | itemKinds.area)) !== 0;
  const onlyFills = about.kinds === itemKinds.area;
  const [part, setPart] = useState<'colour' | 'fill'>(onlyFills ? 'fill' : 'colour');
  const kept = (part === 'fill' ? about.fill : about.colour) ?? '';
  const [colour, alpha] = [kept.slice(0, 6), kept.slice(6)];
  const isFilled = !(about.fill ?? '00').endsWith('00');
  return (
    <section
      aria-label={t`Look of the selection`}
      data-testid="look-panel"
      className="flex w-max gap-5 rounded-lg border border-base-300 bg-base-100 p-3 pt-1 shadow-md"
    >
      <div className="w-[214px]">
        {canFill && !onlyFills && (
          <Segments
            label={t`Border or fill`}
            value={part}
            onValue={setPart}
            options={[
              { value: 'colour', words: t`Border`, testId: 'look-border' },
              { value: 'fill', words: t`Fill`, testId: 'look-fill' },
            ]}
          />
        )}
        <ColourWells
          colour={colour ? `#${colour}` : ''}
          onColour={(to) =>
            selection.restyle(part, `${to.slice(1)}${part === 'fill' && !isFilled ? usualFill : alpha || 'ff'}`)
          }
        />
        <Slider
          label={t`Opacity`}
          value={Math.round((Number.parseInt(alpha || 'ff', 16) / 255) * 100)}
          min={part === 'fill' ? 0 : 5}
          max={100}
          step={5}
          testId="look-opacity"
          words={(share) => (share === 0 ? 'none' : `${share} %`)}
          onValue={(share) =>
            selection.restyle(
              part,
              `${colour || '22302e'}${Math.round(share * 2.55)
                .toString(16)
                .padStart(2, '0')}`,
            )
          }
        />
      </div>
      {!onlyFills && (
        <div className="w-[196px]">
          <Slider
            label={t`Width`}
            value={Number(about.width ?? 40)}
            min={10}
            max={600}
            step={5}
            testId="look-width"
            words={(width) => `${numberWords(width / 100, 2)} mm`}
            onValue={(width) => selection.restyle('width', String(width))}
          />
          <Choice
            label={t`Kind of pen`}
            testId="look-pen"
            value={about.pen}
            onValue={(value) => selection.restyle('pen', value)}
            options={penKinds.map((kind) => [String(penKindNumbers[kind]), penNames[kind]])}
          />
          <Choice
            label={t`Line`}
            testId="look-line"
            value={about.line}
            onValue={(value) => selection.restyle('line', value)}
            options={lineNames}
          />
        </div>
      )}
    </section>
  );
}

/** A fill lets through what lies under it. */
const usualFill = '59';
const lineNames: [string, string][] = [
  [String(lineNumbers.solid), t`Through`],
  [String(lineNumbers.dashed), t`Dashed`],
  [String(lineNumbers.dotted), t`Dotted`],
];

function Choice({
  label,
  testId,
  value,
  options,
  onValue,
}: {
  label: string;
  testId: string;
  value: string | undefined;
  options: [string, string][];
  onValue: (value: string) => void;
}) {
  return (
    <label className="mt-2 block text-[13px]">
      {label}
      <select
        data-testid={testId}
        className="select select-sm mt-1 h-10 w-full border-base-300 bg-base-100"
        value={value ?? ''}
        onChange={(event) => onValue(event.target.value)}
      >
        {value === undefined && <option value="">{t`several`}</option>}
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Even lines, seen before they are kept. */
function Even({ selection, onDone }: { selection: Selection; onDone: () => void }) {
  const [wish, setWish] = useState<EvenWish>({ strength: 0.8, words: true, height: false });
  const { strength, words, height } = wish;
  useEffect(() => {
    selection.previewEven({ strength, words, height });
    return () => selection.previewEven(undefined);
    // The selection is a new object at every drawing; what is seen depends on the wish alone.
  }, [strength, words, height]);
  return (
    <section
      aria-label={t`Even lines`}
      data-testid="even-panel"
      className="w-[260px] rounded-lg border border-base-300 bg-base-100 p-3 shadow-md"
    >
      <Slider
        label={t`How much`}
        value={Math.round(strength * 100)}
        min={0}
        max={100}
        step={5}
        testId="even-strength"
        words={(share) => `${share} %`}
        onDraft={(share) => setWish({ ...wish, strength: share / 100 })}
        onValue={(share) => setWish({ ...wish, strength: share / 100 })}
      />
      <Switch
        label={t`Even gaps between words`}
        on={words}
        testId="even-words"
        onChange={(on) => setWish({ ...wish, words: on })}
      />
      <Switch
        label={t`Level the height`}
        on={height}
        testId="even-height"
        onChange={(on) => setWish({ ...wish, height: on })}
      />
      <div className="mt-2 flex gap-2">
        <Button
          look="primary"

          className="grow"
          data-testid="even-keep"
          onClick={() => {
            selection.even(wish);
            onDone();
          }}
        >
          <ArrowsOutLineHorizontalIcon size={18} /> {t`Keep`}
        </Button>
        <Button look="plain" onClick={onDone}>{t`Leave as it is`}</Button>
      </div>
    </section>
  );
}

function Press({
  label,
  icon,
  testId,
  on,
  onPress,
}: {
  label: string;
  icon: ReactNode;
  testId: string;
  on?: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      data-testid={testId}
      className={`flex h-11 min-w-[54px] flex-col items-center justify-center rounded-md px-1.5 text-xs hover:bg-base-200 ${on ? 'bg-base-200' : ''}`}
      onClick={onPress}
    >
      {icon}
      {label}
    </button>
  );
}
