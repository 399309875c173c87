import { plural, t } from '@lingui/core/macro';
import {
  ArrowBendUpRightIcon,
  ArrowClockwiseIcon,
  BookmarkSimpleIcon,
  CopyIcon,
  FileIcon,
  StarIcon,
  TagIcon,
  TrashIcon,
  XIcon,
} from '@phosphor-icons/react';
import type { ReactNode } from 'react';
import type { PageActions } from './usePageActions';

/** What can be done with the pages that are chosen. */
export function OverviewBar({
  count,
  ids,
  mayWrite,
  actions,
  onClear,
}: {
  count: number;
  ids: string[];
  mayWrite: boolean;
  actions: PageActions;
  onClear: () => void;
}) {
  return (
    <div
      role="toolbar"
      aria-label={t`Chosen pages`}
      data-testid="overview-bar"
      className="absolute bottom-4 left-1/2 z-20 flex max-w-[calc(100%-16px)] -translate-x-1/2 flex-wrap items-center rounded-lg border border-base-300 bg-base-100 p-1.5 shadow-lg"
    >
      <p className="px-3 font-semibold">{plural(count, { one: '# page', other: '# pages' })}</p>
      {mayWrite && (
        <>
          <Press
            label={t`Paper`}
            testId="bar-paper"
            icon={<FileIcon size={20} weight="light" />}
            onPress={() => actions.ask({ what: 'paper', ids })}
          />
          {actions.reachesOut && (
            <>
              <Press
                label={t`Tags`}
                testId="bar-tags"
                icon={<TagIcon size={20} weight="light" />}
                onPress={() => actions.ask({ what: 'tags', ids })}
              />
              <Press
                label={t`Duplicate`}
                testId="bar-duplicate"
                icon={<CopyIcon size={20} weight="light" />}
                onPress={() => void actions.duplicate(ids)}
              />
              <Press
                label={t`Copy to`}
                testId="bar-copy"
                icon={<CopyIcon size={20} weight="light" />}
                onPress={() => actions.ask({ what: 'copy', ids })}
              />
              <Press
                label={t`Move to`}
                testId="bar-move"
                icon={<ArrowBendUpRightIcon size={20} weight="light" />}
                onPress={() => actions.ask({ what: 'move', ids })}
              />
            </>
          )}
          <Press
            label={t`Turn`}
            testId="bar-turn"
            icon={<ArrowClockwiseIcon size={20} weight="light" />}
            onPress={() => void actions.turn(ids)}
          />
        </>
      )}
      <Press
        label={t`Star`}
        testId="bar-star"
        icon={<StarIcon size={20} weight="light" />}
        onPress={() => actions.star(ids)}
      />
      <Press
        label={t`Bookmark`}
        testId="bar-bookmark"
        icon={<BookmarkSimpleIcon size={20} weight="light" />}
        onPress={() => actions.bookmark(ids)}
      />
      {mayWrite && (
        <Press
          label={t`Bin`}
          testId="bar-bin"
          icon={<TrashIcon size={20} weight="light" />}
          onPress={() => actions.bin(ids)}
        />
      )}
      <Press label={t`Leave`} testId="bar-leave" icon={<XIcon size={18} />} onPress={onClear} />
    </div>
  );
}

function Press({
  label,
  icon,
  testId,
  onPress,
}: {
  label: string;
  icon: ReactNode;
  testId: string;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      data-testid={testId}
      className="flex h-11 min-w-[60px] flex-col items-center justify-center rounded-md px-2 text-xs hover:bg-base-200"
      onClick={onPress}
    >
      {icon}
      {label}
    </button>
  );
}
