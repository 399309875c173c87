import { t } from '@lingui/core/macro';
import {
  ArrowSquareOutIcon,
  ArrowsInLineVerticalIcon,
  ArrowsOutLineVerticalIcon,
  BoundingBoxIcon,
  CopyIcon,
  CopySimpleIcon,
  DotsThreeIcon,
  DownloadSimpleIcon,
  EraserIcon,
  FlagPennantIcon,
  FlipHorizontalIcon,
  FunctionIcon,
  HandArrowUpIcon,
  FlipVerticalIcon,
  ImageIcon,
  LinkIcon,
  LinkSimpleIcon,
  ListPlusIcon,
  LockSimpleIcon,
  LockSimpleOpenIcon,
  PaletteIcon,
  PushPinIcon,
  ScissorsIcon,
  SelectionBackgroundIcon,
  StackIcon,
  StackSimpleIcon,
  StampIcon,
  TableIcon,
  TextAlignLeftIcon,
  TextTIcon,
  TreeStructureIcon,
  XIcon,
} from '@phosphor-icons/react';
import { type ReactNode, useEffect, useState } from 'react';
import type { OpenDocument } from '../../sync/openDocument';
import { useWorkspace } from '../../data/useWorkspace';
import { itemKinds, type ShapeToType, type TypingPlace } from '../hand/things';
import { toScreen, type View } from '../ink/view';
import { nameOfLayer, useLayers } from '../tools/layers';
import {
  barPlace,
  type BarSide,
  type Dock,
  dockBeside,
  dockedPlace,
  dockOn,
  liesOver,
  unfoldedPlace,
} from './SelectionFrame';
import { EvenPanel } from './EvenPanel';
import { ClearPanel } from '../things/picture/ClearPanel';
import { PicturePanel } from '../things/picture/PicturePanel';
import { LookPanel } from './LookPanel';
import { FormulaPanel } from '../things/formula/FormulaPanel';
import { PlotPanel } from '../things/plot/PlotPanel';
import { PlotPlane } from '../things/plot/PlotPlane';
import { canBeOpened, openFile, saveFile } from '../../data/keptFiles';
import { type TakenPicture, useFileOf, useFormulaOf, usePlotOf } from './usePictureOf';
import { reshapings, type Selection } from './useSelection';

interface SelectionBarProps {
  /** The layer that is written on; empty for the first. */
  layer: string;
  selection: Selection;
  page: OpenDocument;
  view: View;
  side: BarSide;
  /** The desk's size, pixels. */
  size: { width: number; height: number };
  onLink: () => void;
  /** Keeps it as a stamp. */
  onStamp: () => void;
  onMark: () => void;
  onHeading: () => void;
  onCopyLink: () => void;
  /** The picture that was taken, where it is nothing else. */
  picture: TakenPicture | undefined;
  onCrop: () => void;
  /** The closed shape that was taken, where it is nothing else but its words. */
  framed: ShapeToType | undefined;
  /** Types into a thing, or begins words in a shape. */
  onType: (into: Pick<TypingPlace, 'item' | 'shape'>) => void;
  /** On the person's own sheet: gives it to the page below, where one may write there. There are no marks, links and contents on such a sheet. */
  onGive?: (() => void) | undefined;
}

type Unfolding = 'look' | 'more' | 'even' | 'clear' | 'formula';
/** So far from the edge of the desk it stays, pixels. */
const edge = 8;

/** What can be made of what was taken. One part unfolds below, in place. */
export function SelectionBar({
  layer,
  selection,
  page,
  view,
  side,
  size,
  onLink,
  onStamp,
  onMark,
  onHeading,
  onCopyLink,
  picture,
  framed,
  onCrop,
  onType,
  ...given
}: SelectionBarProps) {
  const isAside = 'onGive' in given;
  const workspace = useWorkspace();
  const { core } = workspace;
  const layers = useLayers(core, page);
  const plot = usePlotOf(page, selection);
  const file = useFileOf(page, selection)?.shown;
  const formula = useFormulaOf(page, selection);
  const [unfolded, setUnfolded] = useState<Unfolding>();
  const [wished, setDock] = useState<Dock>();
  const dock = wished && dockOn(wished, size);
  // One that was just laid down is to be typed.
  const waits = formula?.shown.text === '' ? formula.item : undefined;
  useEffect(() => {
    if (waits) unfoldFormula();
  }, [waits]);
  const { taken, about } = selection;
  const box = toScreen(taken.area, view);
  const isInk = taken.items.length > 0;
  const folded = isInk && (about.kinds & itemKinds.slip) !== 0 ? core.ThingBridge.Folded(page.handle, taken.items) : '';
  const pinned = folded === '' ? '' : core.ThingBridge.Pinned(page.handle, taken.items);
  const lies = barPlace(side, box, size);
  const place = dock && unfolded ? dockedPlace(dock, size) : unfolded ? unfoldedPlace(lies, size) : lies;
  const left = unfolded && dock?.left !== undefined ? dock.left : Math.max(edge, box.left);
  const toggle = (what: Unfolding) => {
    // What would lie over what was taken lies beside it, or at the edge that lies further off, and keeps its place there.
    if (!unfolded) setDock(liesOver(unfoldedPlace(lies, size), lies) ? dockBeside(box, size) : undefined);
    setUnfolded(unfolded === what ? undefined : what);
  };
  // It grows while one types: what belongs to it keeps its place from the beginning.
  const unfoldFormula = () => {
    setDock(waits ? { edge: 'bottom' } : dockBeside(box, size));
    setUnfolded('formula');
  };
  return (
    <>
      {unfolded === 'look' && plot && (
        <PlotPlane key={plot.item} page={page} item={plot.item} plot={plot.shown} view={view} />
      )}
      <div
        className={`pointer-events-none absolute z-20 max-sm:z-30 flex w-max max-w-[calc(100%-16px)] gap-1.5 [&>*]:pointer-events-auto [&>:not([role=toolbar])]:min-h-0 [&>:not([role=toolbar])]:overflow-y-auto ${'bottom' in place ? 'flex-col-reverse' : 'flex-col'}`}
        style={{
          left,
          // Beside the sheet's edge it lies as far to the left as it is wide, whatever is in it.
          translate: `min(0px, calc(${size.width - left - edge}px - 100%))`,
          ...place,
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
              {isInk && !file && (
                <Press
                  label={t`Look`}
                  testId="look-taken"
                  on={unfolded === 'look'}
                  icon={<PaletteIcon size={20} weight="light" />}
                  onPress={() => toggle('look')}
                />
              )}
              {formula && (
                <Press
                  label={t`Formula`}
                  testId="formula-taken"
                  on={unfolded === 'formula'}
                  icon={<FunctionIcon size={20} weight="light" />}
                  onPress={() => (unfolded === 'formula' ? setUnfolded(undefined) : unfoldFormula())}
                />
              )}
              {folded !== '' && (
                <Press
                  label={folded === '1' ? t`Unfold` : t`Fold`}
                  testId="fold-taken"
                  icon={
                    folded === '1' ? (
                      <ArrowsOutLineVerticalIcon size={20} weight="light" />
                    ) : (
                      <ArrowsInLineVerticalIcon size={20} weight="light" />
                    )
                  }
                  onPress={() =>
                    page.performTogether((handle, now) =>
                      core.ThingBridge.Fold(handle, taken.items, folded !== '1', now),
                    )
                  }
                />
              )}
              {pinned !== '' && (
                <Press
                  label={pinned === '1' ? t`Unpin` : t`Pin`}
                  testId="pin-taken"
                  on={pinned === '1'}
                  icon={<PushPinIcon size={20} weight="light" />}
                  onPress={() =>
                    page.perform((handle, now) => core.ThingBridge.Pin(handle, taken.items, pinned !== '1', now))
                  }
                />
              )}
              {file && canBeOpened(file) && (
                <Press
                  label={t`Open`}
                  testId="open-file"
                  icon={<ArrowSquareOutIcon size={20} weight="light" />}
                  onPress={() => void openFile(workspace, page.space, file)}
                />
              )}
              {file && (
                <Press
                  label={t`Save`}
                  testId="save-file"
                  icon={<DownloadSimpleIcon size={20} weight="light" />}
                  onPress={() => void saveFile(workspace, page.space, file)}
                />
              )}
              {about.kinds === itemKinds.table && taken.items.length === 1 && (
                <Press
                  label={t`Type`}
                  testId="type-taken"
                  icon={<TextTIcon size={20} weight="light" />}
                  onPress={() => onType({ item: taken.items[0]! })}
                />
              )}
              {framed && (
                <Press
                  label={t`Words`}
                  testId="words-taken"
                  icon={<TextTIcon size={20} weight="light" />}
                  onPress={() => onType(framed.words ? { item: framed.words } : { shape: framed })}
                />
              )}
              {framed && (
                <Press
                  label={t`Branch`}
                  testId="branch-taken"
                  icon={<TreeStructureIcon size={20} weight="light" />}
                  onPress={() => {
                    page.performTogether((handle, now) => core.DiagramBridge.AddBranch(handle, framed.id, layer, now));
                    onType({ item: core.DiagramBridge.Branch(page.handle) });
                  }}
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
              {given.onGive && (
                <Press
                  label={t`Give it`}
                  testId="give-taken"
                  icon={<HandArrowUpIcon size={20} weight="light" />}
                  onPress={given.onGive}
                />
              )}
              {!isAside && (
                <>
                  <Press
                    label={t`Link`}
                    testId="make-link"
                    icon={<LinkIcon size={20} weight="light" />}
                    onPress={onLink}
                  />
                  <Press
                    label={t`Mark`}
                    testId="make-mark"
                    icon={<FlagPennantIcon size={20} weight="light" />}
                    onPress={onMark}
                  />
                </>
              )}
              {isInk && !isAside && (
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
        {unfolded === 'look' && !picture && !plot && <LookPanel selection={selection} page={page} />}
        {unfolded === 'look' && picture && (
          <PicturePanel
            page={page}
            item={picture.item}
            picture={picture.shown}
            onCrop={onCrop}
            onClear={() => setUnfolded('clear')}
            onCaption={() => onType({ item: picture.item })}
          />
        )}
        {unfolded === 'look' && plot && <PlotPanel page={page} item={plot.item} plot={plot.shown} />}
        {unfolded === 'formula' && formula && (
          <FormulaPanel key={formula.item} page={page} item={formula.item} formula={formula.shown} />
        )}
        {unfolded === 'clear' && picture && (
          <ClearPanel page={page} item={picture.item} picture={picture.shown} onDone={() => setUnfolded(undefined)} />
        )}
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
            {selection.asTable && (
              <Press
                label={t`As table`}
                testId="as-table"
                icon={<TableIcon size={20} weight="light" />}
                onPress={selection.asTable}
              />
            )}
            {framed && core.DiagramBridge.Branches(page.handle, framed.id) > 0 && (
              <Press
                label={t`Lay out`}
                testId="arrange-map"
                icon={<TreeStructureIcon size={20} weight="light" />}
                onPress={() => {
                  page.performTogether((handle, now) => core.DiagramBridge.Arrange(handle, framed.id, now));
                }}
              />
            )}
            {selection.loosen && (
              <Press
                label={t`As drawn`}
                testId="as-drawn"
                icon={<BoundingBoxIcon size={20} weight="light" />}
                onPress={selection.loosen}
              />
            )}
            {about.reshaping !== reshapings.movedOnly && (
              <>
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
              </>
            )}
            <Press
              label={t`As stamp`}
              testId="as-stamp"
              icon={<StampIcon size={20} weight="light" />}
              onPress={onStamp}
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
        {unfolded === 'even' && <EvenPanel selection={selection} onDone={() => setUnfolded(undefined)} />}
      </div>
    </>
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
