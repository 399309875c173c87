import { t } from '@lingui/core/macro';
import { FolderSimpleIcon } from '@phosphor-icons/react';
import { Link } from 'react-router';
import { phone, useMedia } from '../ui/useMedia';
import { PagePicture } from '../pictures/PagePicture';
import { NodeIcon } from '../ui/NodeIcon';
import {
  aboutWords,
  ChooseBox,
  Face,
  ItemMenuButton,
  type ItemProps,
  pathTo,
  Tags,
  Title,
  useItemHandling,
  When,
  Writers,
} from './ItemParts';
import { type Item, openPath, stripPath, thumbnailPath } from '../model/items';
import { fillOf } from '../model/colours';
import { useStrip } from '../data/useShelf';

const stateOf = ({
  isChosen,
  isMarked,
  isDragging,
  isOver,
}: {
  isChosen: boolean;
  isMarked: boolean;
  isDragging: boolean;
  isOver: boolean;
}) =>
  `${isChosen ? 'bg-base-200/55 shadow-[inset_3px_0_0_var(--color-primary)]' : isMarked ? 'shadow-[inset_3px_0_0_var(--color-accent)]' : ''} ${isDragging ? 'opacity-40' : ''} ${isOver ? 'shadow-[0_-3px_0_var(--color-primary)]' : ''}`;

/** A notebook as a row: cover, words, people, and the strip of pages written last. */
export function Row(props: ItemProps) {
  const { item, place, people, size } = props;
  const handling = useItemHandling(props);
  const isPhone = useMedia(phone);
  return (
    <div
      {...handling.holder}
      className={`group flex h-full items-start gap-[18px] border-b border-base-300 py-4 ps-1 max-sm:flex-wrap max-sm:content-start max-sm:gap-x-3 max-sm:gap-y-2 max-sm:py-3 [@media(max-height:820px)]:py-3 ${stateOf(handling)}`}
    >
      <Link to={pathTo(item)} tabIndex={-1} draggable={false} aria-hidden="true">
        <Face item={item} width={isPhone ? 60 : 84} />
      </Link>
      <div className="w-[236px] shrink-0 pt-0.5 max-sm:w-0 max-sm:min-w-0 max-sm:grow">
        <h2 className="text-[19px] leading-snug">
          <Title {...props} className="font-title text-[19px]" />
        </h2>
        <p className="line-clamp-2 text-quiet max-sm:line-clamp-1">{aboutWords(item, place)}</p>
        <div className="mt-2 max-h-[52px] overflow-hidden max-sm:hidden">
          <Tags item={item} />
        </div>
        <div className="mt-2 flex items-center gap-2.5">
          <Writers item={item} people={people} />
          <When item={item} people={people} />
        </div>
      </div>
      {item.kind === 'page' ? (
        <PageHead item={item} />
      ) : (
        <PageStrip item={item} width={isPhone ? 50 : Math.round(79 * (size / 5))} isLocked={props.isLocked} />
      )}
      <div className="flex shrink-0 flex-col">
        <ItemMenuButton {...props} />
        <ChooseBox {...props} />
      </div>
    </div>
  );
}

/** The head of a page, large enough to be read. */
function PageHead({ item }: { item: Item }) {
  return (
    <Link
      to={pathTo(item)}
      tabIndex={-1}
      draggable={false}
      aria-hidden="true"
      className="block h-[132px] min-w-0 max-w-[560px] grow overflow-hidden border border-base-300 bg-paper hover:border-primary max-sm:hidden"
    >
      <img src={thumbnailPath(item.space, item)} alt="" loading="lazy" draggable={false} className="w-full" />
    </Link>
  );
}

function PageStrip({ item, width, isLocked }: { item: Item; width: number; isLocked: boolean }) {
  const strip = useStrip(item.space, item.notebook, item.summary);
  if (isLocked)
    return (
      <p className="grow self-center text-quiet max-sm:hidden">{t`Locked. Its pages show once it is opened with the passphrase.`}</p>
    );
  return (
    <ol
      className="flex min-w-0 grow flex-wrap gap-[10px] overflow-hidden max-sm:order-last max-sm:basis-full"
      style={{ height: width * 1.41 + 22 }}
      aria-label={t`Pages of ${item.title} written last`}
    >
      {(item.kind === 'notebook' ? strip : []).map((page) => (
        <li key={page.id}>
          <Link
            to={openPath(item.space, item.id, page.id)}
            draggable={false}
            className="group/page block text-[13px] text-quiet"
          >
            <PagePicture
              address={stripPath(item.space, page)}
              alt={page.title ? t`Page ${page.number}, ${page.title}` : t`Page ${page.number}`}
              width={width}
              height={Math.round(width * 1.41)}
              testId="strip-page"
              className="group-hover/page:border-primary"
            />
            <span className="block pt-0.5">{page.number}</span>
          </Link>
        </li>
      ))}
    </ol>
  );
}

/** A notebook as its cover, or a page as its picture, with its words below. */
export function Tile(props: ItemProps) {
  const { item, place, size } = props;
  const handling = useItemHandling(props);
  const width = tileWidth(size) - 24;
  return (
    <div
      {...handling.holder}
      className={`group relative flex flex-col rounded-sm p-1.5 ${stateOf(handling)}`}
      style={{ width: tileWidth(size) - 10 }}
    >
      <div className="relative w-max">
        <Link to={pathTo(item)} tabIndex={-1} draggable={false} aria-hidden="true">
          <Face item={item} width={width} />
        </Link>
        <div className="absolute bottom-1.5 end-1.5 flex gap-1 [&_button]:bg-base-100/85 [&>label]:rounded-md [&>label]:bg-base-100/85">
          <ChooseBox {...props} />
          <ItemMenuButton {...props} />
        </div>
      </div>
      <h2 className="pt-2 text-[16px] leading-tight">
        <Title {...props} className="font-title text-[16px]" />
      </h2>
      <p className="truncate text-[13px] text-quiet">{aboutWords(item, place)}</p>
    </div>
  );
}

export function tileWidth(size: number): number {
  return Math.round(34 * size) + 10;
}

export function tileHeight(size: number): number {
  return Math.round((tileWidth(size) - 24) * 1.36) + 84;
}

/** A line of a plain list. */
export function Line(props: ItemProps) {
  const { item, place, people } = props;
  const handling = useItemHandling(props);
  const bar = item.node?.colour ?? '';
  return (
    <div
      {...handling.holder}
      className={`group flex h-full items-center gap-3 border-b border-base-300 ${stateOf(handling)}`}
    >
      <span
        className={`h-5 w-1 shrink-0 rounded-sm ${item.kind === 'page' ? 'bg-base-300' : (fillOf[bar] ?? 'bg-spruce')}`}
      />
      <div className="min-w-0 basis-[34%]">
        <Title {...props} className="text-[15px]" lines={1} />
      </div>
      <p className="min-w-0 grow basis-[24%] truncate text-quiet max-md:hidden">{aboutWords(item, place)}</p>
      <div className="flex max-h-7 min-w-0 basis-[20%] overflow-hidden max-lg:hidden">
        <Tags item={item} />
      </div>
      <Writers item={item} people={people} size={24} />
      <span className="w-32 shrink-0 text-end max-sm:hidden">
        <When item={item} people={people} />
      </span>
      <ChooseBox {...props} />
      <ItemMenuButton {...props} />
    </div>
  );
}

/** An inner folder: a label that can be opened, dragged, and dropped on. */
export function FolderTile(props: ItemProps & { count: number }) {
  const { item, count } = props;
  const handling = useItemHandling(props);
  return (
    <div
      {...handling.holder}
      className={`group flex h-11 items-center rounded-md border border-base-300 ps-3 ${handling.isChosen ? 'bg-base-200' : 'bg-base-100'} ${handling.isDragging ? 'opacity-40' : ''} ${handling.isOver ? 'outline-2 outline-primary' : ''}`}
    >
      <span className={`me-2.5 h-5 w-1 shrink-0 rounded-sm ${fillOf[item.node?.colour ?? ''] ?? 'bg-spruce'}`} />
      {item.node?.icon ? <NodeIcon name={item.node.icon} /> : <FolderSimpleIcon size={18} weight="light" />}
      <Title {...props} className="max-w-64 px-2 text-[15px]" lines={1} />
      <span className="text-[13px] text-quiet">{count}</span>
      <ItemMenuButton {...props} />
    </div>
  );
}
