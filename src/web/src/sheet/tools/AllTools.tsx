import { Button, SignButton } from '../../ui/Button';
import { carryWords } from '../../ui/carryWords';
import { t } from '@lingui/core/macro';
import { ArrowsLeftRightIcon, CaretDownIcon, CaretUpIcon, MagnifyingGlassIcon } from '@phosphor-icons/react';
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  PointerSensor,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { type ReactNode, useState } from 'react';
import { say } from '../../ui/saying';
import { mostOffers, offers, trayOffers, usualOffers } from './offers';
import { Sign } from './Sign';
import type { Offer, Tools } from '../hand/tool';
import { Unfolded } from './Unfolded';
import type { TrayPlace } from './useTrayPlace';

/** A press held for so long, ms, drags. */
const holdToDrag = 250;

/** All tools, with their names and keys: one is taken up by a press, and put into the tray, taken out and moved there by holding and dragging, or by its buttons. */
export function AllTools({
  tools,
  side,
  onPlace,
}: {
  tools: Tools;
  side: 'left' | 'right';
  onPlace: (change: Partial<TrayPlace>) => void;
}) {
  const [sought, setSought] = useState('');
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { delay: holdToDrag, tolerance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: holdToDrag, tolerance: 6 } }),
  );
  const text = sought.trim().toLowerCase();
  const fits = (offer: Offer) => `${offer.words(tools)} ${offer.title}`.toLowerCase().includes(text);
  const inTray = trayOffers(tools);
  const others = offers.filter((offer) => !inTray.includes(offer));
  const keep = (names: string[]) => tools.changeHabits({ inTray: names });
  const names = inTray.map((offer) => offer.name);
  const put = (name: string, at: number) => {
    const without = names.filter((one) => one !== name);
    if (without.length >= mostOffers) return say(t`The tray holds ${mostOffers} tools. Take one out first.`);
    keep(without.toSpliced(at, 0, name));
  };
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over) return;
    const name = String(active.id);
    if (over.id === outside) keep(names.filter((one) => one !== name));
    else put(name, Math.max(0, names.indexOf(String(over.id))));
  };
  const row = (offer: Offer, at: number) => (
    <ToolRow
      key={offer.name}
      offer={offer}
      tools={tools}
      inTray={at >= 0}
      onPut={(on) => (on ? put(offer.name, names.length) : keep(names.filter((one) => one !== offer.name)))}
      onMove={at < 0 ? undefined : (by) => put(offer.name, Math.min(Math.max(at + by, 0), names.length - 1))}
    />
  );
  return (
    <Unfolded title={t`All tools`} aside={t`${names.length} of ${mostOffers} in the tray`} testId="all-tools" wide>
      <label className="relative mt-2 block">
        <MagnifyingGlassIcon size={18} className="pointer-events-none absolute start-3 top-3 z-10 text-quiet" />
        <input
          type="search"
          aria-label={t`Find a tool`}
          placeholder={t`Find a tool`}
          data-testid="find-tool"
          className="field ps-9"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
      </label>
      <DndContext sensors={sensors} accessibility={carryWords} collisionDetection={closestCenter} onDragEnd={drop}>
        <div className={lowGrid}>
          <ul className="-mx-2 mt-1" aria-label={t`In the tray`}>
            {inTray.map((offer, at) => (fits(offer) ? row(offer, at) : null))}
          </ul>
          <Outside>{others.filter(fits).map((offer) => row(offer, -1))}</Outside>
        </div>
      </DndContext>
      {!offers.some(fits) && <p className="py-2 text-quiet">{t`There is no tool of that name.`}</p>}
      <div className="mt-2 grid grid-cols-2 gap-1.5">
        <Button
          className="px-2 text-[13px]"
          data-testid="tray-side"
          onClick={() => onPlace({ side: side === 'left' ? 'right' : 'left' })}
        >
          <ArrowsLeftRightIcon size={18} weight="light" />
          {side === 'left' ? t`To the right` : t`To the left`}
        </Button>
        <Button
          className="px-2 text-[13px]"
          data-testid="usual-tray"
          onClick={() => keep([...usualOffers])}
        >{t`As it was first`}</Button>
      </div>
    </Unfolded>
  );
}

/** On a laptop the two lists stand side by side, so that all tools are seen at once. */
const lowGrid =
  'lg:[@media(max-height:900px)]:grid lg:[@media(max-height:900px)]:grid-cols-2 lg:[@media(max-height:900px)]:gap-x-8';

/** Where a tool is dropped to take it out of the tray. */
const outside = 'outside';

function Outside({ children }: { children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: outside });
  return (
    <ul
      ref={setNodeRef}
      aria-label={t`Not in the tray`}
      className={`-mx-2 mt-1 min-h-11 border-t border-base-300 pt-1 lg:[@media(max-height:900px)]:border-t-0 lg:[@media(max-height:900px)]:pt-0 ${isOver ? 'bg-base-200' : ''}`}
    >
      {children}
    </ul>
  );
}

function ToolRow({
  offer,
  tools,
  inTray,
  onPut,
  onMove,
}: {
  offer: Offer;
  tools: Tools;
  inTray: boolean;
  onPut: (on: boolean) => void;
  onMove: ((by: number) => void) | undefined;
}) {
  const drag = useDraggable({ id: offer.name });
  const drop = useDroppable({ id: offer.name, disabled: !inTray });
  const name = offer.title;
  return (
    <li
      ref={(element) => {
        drag.setNodeRef(element);
        drop.setNodeRef(element);
      }}
      className={`flex items-center rounded-md ${drop.isOver ? 'bg-base-200' : ''}`}
      style={drag.transform ? { transform: `translate(${drag.transform.x}px, ${drag.transform.y}px)` } : undefined}
    >
      <button
        type="button"
        data-testid={`all-${offer.name}`}
        aria-pressed={offer.isOn(tools)}
        className={`flex h-11 min-w-0 grow items-center gap-2.5 rounded-md px-2 text-start hover:bg-base-200 ${offer.isOn(tools) ? 'font-semibold' : ''}`}
        {...drag.listeners}
        onKeyDown={undefined}
        onClick={() => (tools.unfold(undefined), offer.press(tools))}
      >
        <Sign of={offer.icon(tools)} className="shrink-0" />
        <span className="min-w-0 grow truncate">{name}</span>
        {offer.key && (
          <kbd className="rounded-sm border border-base-300 px-1.5 text-[12px] text-quiet">
            {offer.key.toUpperCase()}
          </kbd>
        )}
      </button>
      {onMove && (
        <span className="flex w-[60px] shrink-0">
          <SignButton
            label={t`${name}: further up`}
            data-testid={`up-${offer.name}`}
            className="w-8"
            onClick={() => onMove(-1)}
          >
            <CaretUpIcon size={16} />
          </SignButton>
          <SignButton
            label={t`${name}: further down`}
            data-testid={`down-${offer.name}`}
            className="w-8"
            onClick={() => onMove(1)}
          >
            <CaretDownIcon size={16} />
          </SignButton>
        </span>
      )}
      <label className="grid size-11 shrink-0 cursor-pointer place-items-center">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          aria-label={t`${name} in the tray`}
          data-testid={`keep-${offer.name}`}
          checked={inTray}
          onChange={(event) => onPut(event.target.checked)}
        />
      </label>
    </li>
  );
}
