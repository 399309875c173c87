import { t } from '@lingui/core/macro';
import { FilePdfIcon, FileSvgIcon, NotePencilIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { download } from '../data/download';
import { useLibraries } from '../data/useLibrary';
import { type AsideNote, usePersonal } from '../data/usePersonal';
import { useShownPage } from '../data/useShownPages';
import { useWorkspace } from '../data/useWorkspace';
import { makeJot } from '../jot/useJot';
import { openPath } from '../model/items';
import { sentenceOf } from '../core/runtime';
import { PagePicture } from '../pictures/PagePicture';
import { OpenDocument } from '../sync/openDocument';
import { SignButton } from '../ui/Button';
import { say } from '../ui/saying';

const picture = { width: 92, height: 120 };

/** All one's own sheets over pages, also of pages that are there no more. */
export function AsidesScreen() {
  const personal = usePersonal();
  const libraries = useLibraries();
  const nameOf = (note: AsideNote) => libraries.get(note.space)?.find(note.notebook)?.name;
  const asides = [...(personal?.asides ?? [])].sort(
    ([, a], [, b]) => (nameOf(a) ?? '￿').localeCompare(nameOf(b) ?? '￿') || a.title.localeCompare(b.title),
  );
  return (
    <div className="max-w-[1080px]">
      <h1 className="mb-1 text-[30px]">{t`Asides`}</h1>
      <p className="mb-6 max-w-[64ch] text-quiet">
        {asides.length === 0
          ? t`You have written no aside yet. On any page, take up your aside from the line above the sheet: it is a sheet of your own over the page, which nobody else sees.`
          : t`Your own sheets over pages. Nobody else sees them, and they stay yours whatever becomes of the page.`}
      </p>
      <ul>
        {asides.map(([page, note]) => (
          <AsideRow key={page} page={page} note={note} notebook={nameOf(note)} />
        ))}
      </ul>
    </div>
  );
}

function AsideRow({ page, note, notebook }: { page: string; note: AsideNote; notebook: string | undefined }) {
  const workspace = useWorkspace();
  const personal = usePersonal()!;
  const navigate = useNavigate();
  const known = useShownPage(note.space, note.notebook, page);
  const shown = known === 'gone' ? undefined : known;
  // Asked for anew whenever the list is opened.
  const [asked] = useState(() => Date.now());
  const of = new URLSearchParams({ paper: note.paper, title: note.title });
  const path = (form: string) => `/api/asides/${page}/export.${form}?${of.toString()}`;
  const name = shown?.title || note.title || (shown ? t`Page ${shown.number}` : t`A page`);
  const words = t`Your aside of “${name}”`;

  /** Lays all of it onto a page of one's own, beside the aside, which stays. */
  const makePage = async () => {
    const { HandBridge } = workspace.core;
    const aside = await workspace.acquire(personal.library.space, 'aside', page);
    try {
      const items = HandBridge.AllOpen(aside.handle);
      if (items.length === 0) return say(t`There is nothing on this aside any more.`);
      const to = makeJot(personal);
      const made = new URL(to, location.href).pathname.split('/').at(-1)!;
      const onto = await workspace.acquire(personal.library.space, 'page', made);
      try {
        const all = HandBridge.BeginLay(onto.handle, HandBridge.Cut(aside.handle, items), 0, 0, '');
        OpenDocument.performAcross([[onto, (handle, now) => HandBridge.LayMore(handle, all + 1, now)]]);
      } finally {
        workspace.release(personal.library.space, 'page', made);
      }
      await navigate(to);
    } catch (problem) {
      say(sentenceOf(problem));
    } finally {
      workspace.release(personal.library.space, 'aside', page);
    }
  };

  return (
    <li className="flex items-center gap-5 border-b border-base-300 py-3" data-testid="aside-row" data-page={page}>
      <PagePicture address={`${path('svg')}&asked=${asked}`} {...picture} fit="object-cover object-top" />
      <div className="min-w-0 grow">
        {known !== 'gone' ? (
          <Link
            to={openPath(note.space, note.notebook, page)}
            className="font-title text-[18px] hover:underline"
            data-testid="open-aside"
          >
            {name}
          </Link>
        ) : (
          <span className="font-title text-[18px]">{name}</span>
        )}
        <p className="text-[13px] text-quiet" data-testid="aside-where">
          {shown
            ? t`over page ${shown.number} of “${notebook ?? ''}”`
            : known !== 'gone'
              ? t`over a page of “${notebook ?? ''}”`
              : t`The page is not there for you any more. What you wrote over it is.`}
        </p>
      </div>
      <span className="flex shrink-0 gap-1">
        <SignButton label={t`Make a page of your own of it`} data-testid="aside-page" onClick={() => void makePage()}>
          <NotePencilIcon size={22} weight="light" />
        </SignButton>
        <SignButton
          label={t`Your aside as PDF`}
          data-testid="aside-pdf"
          onClick={() => void download(workspace, { path: path('pdf'), words })}
        >
          <FilePdfIcon size={22} weight="light" />
        </SignButton>
        <SignButton
          label={t`Your aside as SVG`}
          className="max-sm:hidden"
          data-testid="aside-svg"
          onClick={() => void download(workspace, { path: path('svg'), words })}
        >
          <FileSvgIcon size={22} weight="light" />
        </SignButton>
      </span>
    </li>
  );
}
