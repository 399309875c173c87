import { plural, t } from '@lingui/core/macro';
import { FolderSimpleIcon, QrCodeIcon, XIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { Link } from 'react-router';
import { sentenceOf } from '../core/runtime';
import { may } from '../data/rights';
import { useLibraries, useLibrary } from '../data/useLibrary';
import { useShared } from '../data/useShared';
import { useShownPages } from '../data/useShownPages';
import { type LibraryNode, openPath, thumbnailPath } from '../model/items';
import { fillOf } from '../model/colours';
import { whenWords } from '../model/time';
import { Cover } from '../papers/Cover';
import { PagePicture } from '../pictures/PagePicture';
import { useSession } from '../server/session';
import type { SharedSpace, SharedThing } from '../sync/shared';
import { SignButton } from '../ui/Button';
import { ConfirmDialog } from '../ui/naming';
import { say } from '../ui/saying';
import { MadeLink } from './ShareDialog';
import { type Share, termsWords, untilWords, useShareActs, useSharesOf, withWords } from './shares';

/** Pictures of a notebook's pages beside it; pixels. */
const strip = { width: 62, height: 86, most: 5 };

/** What others shared with me, and what I share. */
export function SharedScreen() {
  const shared = useShared();
  return (
    <div className="max-w-[1080px]">
      <h1 className="mb-1 text-[30px]">{t`Shared with me`}</h1>
      <p className="mb-6 text-quiet">
        {shared.length === 0
          ? t`Nobody has shared a folder or notebook with you yet. What is shared stands here, also without a connection.`
          : t`Folders and notebooks out of other libraries. They are here also without a connection.`}
      </p>
      {shared.map((space) => (
        <FromSpace key={space.space} shared={space} />
      ))}
      <SharedByUs />
    </div>
  );
}

function FromSpace({ shared }: { shared: SharedSpace }) {
  const library = useLibrary(shared.space);
  if (!library) return null;
  return (
    <ul data-testid="shared-space">
      {shared.things.map((thing) => {
        const node = library.find(thing.node);
        return node && <SharedRow key={thing.share} shared={shared} thing={thing} node={node} />;
      })}
    </ul>
  );
}

function SharedRow({ shared, thing, node }: { shared: SharedSpace; thing: SharedThing; node: LibraryNode }) {
  const library = useLibrary(shared.space)!;
  const { letGo } = useShareActs();
  const [parting, setParting] = useState(false);
  const inside = node.kind === 'notebook' ? [node] : library.allNotebooks(node.id);
  const from = [
    thing.through ? t`from ${thing.by}, for “${thing.through}”` : t`from ${thing.by}`,
    thing.writes ? t`you read and write` : t`you read`,
    untilWords(thing.until),
  ].filter(Boolean);
  return (
    <li className="mb-7" data-testid="shared-thing" data-name={node.name}>
      <div className="flex items-start gap-3 border-b border-base-300 pb-2">
        {node.kind === 'folder' && (
          <FolderSimpleIcon size={24} weight="light" className="mt-0.5 shrink-0" aria-hidden="true" />
        )}
        <div className="min-w-0 grow">
          <h2 className="text-[19px] leading-snug">
            {node.kind === 'folder' && (
              <span
                aria-hidden="true"
                className={`me-2 inline-block h-4 w-1.5 rounded-sm ${fillOf[node.colour] ?? 'bg-spruce'}`}
              />
            )}
            {node.name}
          </h2>
          <p className="text-[13px] text-quiet">{from.join(' · ')}</p>
        </div>
        {thing.with !== 'group' && (
          <SignButton
            label={t`Let go of “${node.name}”`}
            title={t`Let go of it`}
            data-testid="let-go"
            onClick={() => setParting(true)}
          >
            <XIcon size={18} />
          </SignButton>
        )}
      </div>
      <ul>
        {inside.map((notebook) => (
          <NotebookRow key={notebook.id} shared={shared} notebook={notebook} top={node.id} />
        ))}
      </ul>
      {node.kind === 'folder' && inside.length === 0 && (
        <p className="py-3 text-quiet">{t`This folder is empty at the moment.`}</p>
      )}
      {parting && (
        <ConfirmDialog
          title={t`Let go of “${node.name}”?`}
          confirm={t`Let go`}
          onConfirm={() => void letGo(thing.share).catch((problem: unknown) => say(sentenceOf(problem)))}
          onClose={() => setParting(false)}
        >
          <p>{t`It leaves your devices. What you wrote in it stays there, and ${thing.by} can share it again.`}</p>
        </ConfirmDialog>
      )}
    </li>
  );
}

function NotebookRow({ shared, notebook, top }: { shared: SharedSpace; notebook: LibraryNode; top: string }) {
  const library = useLibrary(shared.space)!;
  const known = shared.notebooks.find((one) => one.id === notebook.id);
  const pages = useShownPages(shared.space, notebook.id);
  const path = `/page/${shared.space}/${notebook.id}`;
  const lies = library
    .pathOf(notebook.id)
    .map((folder) => folder.name)
    .slice(library.pathOf(notebook.id).findIndex((folder) => folder.id === top) + 1)
    .join(' / ');
  const about = [
    lies,
    known ? plural(known.pageCount, { one: '# page', other: '# pages' }) : '',
    known?.writtenAt ? whenWords(known.writtenAt) : '',
  ];
  return (
    <li className="flex items-center gap-4 border-b border-base-300 py-3" data-testid="shared-notebook">
      <Link to={path} tabIndex={-1} aria-hidden="true">
        <Cover node={notebook} width={62} space={shared.space} />
      </Link>
      <div className="min-w-0 grow">
        <Link to={path} className="font-title text-[18px] hover:underline" data-testid="open-shared">
          {notebook.name}
        </Link>
        <p className="text-[13px] text-quiet">{about.filter(Boolean).join(' · ')}</p>
      </div>
      <span className="flex shrink-0 gap-2 max-md:hidden">
        {[...pages.values()].slice(0, strip.most).map((page) => (
          <Link
            key={page.id}
            to={openPath(shared.space, notebook.id, page.id)}
            aria-label={t`Page ${page.number} of ${notebook.name}`}
          >
            <PagePicture
              address={thumbnailPath(shared.space, page)}
              width={strip.width}
              height={strip.height}
              fit="object-cover object-top"
              className="hover:border-primary"
            />
          </Link>
        ))}
      </span>
    </li>
  );
}

/** What is shared out of one's own library, and out of groups: by oneself, or by anybody where one looks after the group. */
function SharedByUs() {
  const { spaces } = useSession();
  const all = useSharesOf(spaces.filter((space) => may(space, 'Write')).map((space) => space.id));
  const { takeBack } = useShareActs();
  const libraries = useLibraries();
  const [shown, setShown] = useState<Share & { space: string }>();
  if (all.length === 0) return null;
  const pathOf = (share: Share & { space: string }) =>
    libraries.get(share.space)?.find(share.node)?.kind === 'folder'
      ? `/library/${share.space}/${share.node}`
      : `/page/${share.space}/${share.node}`;
  const nameOf = (id: string) => spaces.find((space) => space.id === id)?.name ?? '';
  return (
    <section aria-label={t`What you share`}>
      <h2 className="mt-10 border-b border-base-300 pb-2 text-[20px]">{t`What you share`}</h2>
      <ul>
        {all.map((share) => (
          <li
            key={share.id}
            className="flex items-center gap-3 border-b border-base-300 py-2.5"
            data-testid="given-share"
          >
            <div className="min-w-0 grow">
              <Link to={pathOf(share)} className="font-title text-[17px] hover:underline">
                {share.name}
              </Link>
              <p className="text-[13px] text-quiet">
                {[
                  withWords(share),
                  termsWords(share),
                  share.page ? t`one page` : '',
                  share.hasPassphrase ? t`with a passphrase` : '',
                  nameOf(share.space),
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </p>
            </div>
            {share.link !== null && (
              <SignButton
                label={t`Show the link`}
                title={t`Show the link`}
                data-testid="show-share-link"
                onClick={() => setShown(share)}
              >
                <QrCodeIcon size={20} weight="light" />
              </SignButton>
            )}
            <SignButton
              label={t`Take “${share.name}” back`}
              title={t`Take it back`}
              data-testid="take-share-back"
              onClick={() =>
                void takeBack(share.space, share.id).then(
                  () => say(t`It is shared no more, and leaves their devices.`),
                  (problem: unknown) => say(sentenceOf(problem)),
                )
              }
            >
              <XIcon size={18} />
            </SignButton>
          </li>
        ))}
      </ul>
      {shown && <MadeLink space={shown.space} id={shown.id} name={shown.name} onClose={() => setShown(undefined)} />}
    </section>
  );
}
