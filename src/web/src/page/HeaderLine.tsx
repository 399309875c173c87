import { FilePdfIcon } from '@phosphor-icons/react';
import { Link } from 'react-router';
import type { Member } from '../group/usePeople';
import type { LibraryNode, NotebookPage } from '../library/useLibrary';
import type { Space } from '../session/session';
import { Avatar } from '../ui/Avatar';
import { Menu } from '../ui/Menu';

interface HeaderLineProps {
  space: Space;
  folder?: LibraryNode;
  notebook: { id: string; name: string };
  page: NotebookPage;
  number: number;
  count: number;
  present: Member[];
  onRename?: (title: string) => void;
  problem: string;
}

/** The line above the sheet: where am I, who is here, and taking the page out. */
export function HeaderLine({ space, folder, notebook, page, number, count, present, onRename, problem }: HeaderLineProps) {
  return (
    <header className="flex h-12 shrink-0 items-center gap-2 border-b border-base-300 px-5">
      <Link to={`/library/${space.id}${folder ? `/${folder.id}` : ''}`} className="min-w-0 shrink truncate py-2 text-quiet hover:underline" data-testid="back-to-library">
        {folder?.name ?? space.name}
      </Link>
      <Slash />
      <h1 className="min-w-0 shrink truncate text-[16px]">{notebook.name}</h1>
      <Slash />
      <input
        key={`${page.id}${page.title}`}
        aria-label="Title of the page"
        data-testid="page-title"
        defaultValue={page.title}
        placeholder="Untitled page"
        readOnly={!onRename}
        className="h-9 min-w-16 max-w-80 shrink rounded-md field-sizing-content border border-transparent bg-transparent px-2 placeholder:text-quiet hover:border-base-300 max-sm:hidden"
        onBlur={(event) => event.target.value.trim() && onRename?.(event.target.value.trim())}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      />
      <span className="shrink-0 whitespace-nowrap rounded-sm bg-base-200 px-2 py-0.5 text-[13px] text-quiet" data-testid="page-number">
        page {number} of {count}
      </span>
      <span role="alert" className="truncate text-error">
        {problem}
      </span>
      <div className="grow" />
      <div className="flex shrink-0 -space-x-1.5" role="group" aria-label="Here now" data-testid="present">
        {present.map((person) => (
          <Avatar key={person.id} name={person.name} colour={person.colour} />
        ))}
      </div>
      {space.role === 'reader' && <span className="shrink-0 text-[13px] text-quiet">You read here</span>}
      <Menu
        label="Export as PDF"
        testId="export"
        icon={<FilePdfIcon size={22} weight="light" />}
        entries={[
          { label: 'This page', testId: 'export-page', icon: <FilePdfIcon size={20} weight="light" />, onChoose: () => location.assign(`/api/spaces/${space.id}/pages/${page.id}/export.pdf`) },
          { label: 'The whole notebook', testId: 'export-notebook', icon: <FilePdfIcon size={20} weight="light" />, onChoose: () => location.assign(`/api/notebooks/${notebook.id}/export.pdf`) },
        ]}
      />
    </header>
  );
}

function Slash() {
  return (
    <span className="text-quiet" aria-hidden="true">
      /
    </span>
  );
}
