import { ColumnsIcon, FilePdfIcon, ListDashesIcon, LockSimpleIcon, XIcon } from '@phosphor-icons/react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { Member } from '../group/usePeople';
import type { LibraryNode, NotebookEntry } from '../library/model';
import type { Space } from '../session/session';
import { Avatar } from '../ui/Avatar';
import { Menu } from '../ui/Menu';

interface HeaderLineProps {
  space: Space;
  folder?: LibraryNode | undefined;
  notebook: { id: string; name: string };
  section?: NotebookEntry | undefined;
  page: NotebookEntry;
  count: number;
  present: Member[];
  onRename?: ((title: string) => void) | undefined;
  problem: string;
  contents?: { shown: boolean; toggle: () => void };
  onBeside?: () => void;
  onShut?: () => void;
  /** For the second of two pages: takes it away. */
  onClose?: () => void;
}

/** The line above the sheet: where am I, who is here, what lies beside, and taking the page out. */
export function HeaderLine({ space, folder, notebook, section, page, count, present, onRename, problem, contents, onBeside, onShut, onClose }: HeaderLineProps) {
  return (
    <header className="flex h-12 shrink-0 items-center gap-2 border-b border-base-300 px-4">
      {!onClose && (
        <>
          <Link to={`/library/${space.id}${folder ? `/${folder.id}` : ''}`} className="min-w-0 shrink truncate py-2 text-quiet hover:underline @max-2xl:hidden" data-testid="back-to-library">
            {folder?.name ?? space.name}
          </Link>
          <span className="@max-2xl:hidden">
            <Slash />
          </span>
        </>
      )}
      <h1 className="min-w-0 shrink truncate text-[16px]" data-testid="notebook-name" title={notebook.name}>
        {notebook.name}
      </h1>
      {section && (
        <>
          <span className="text-quiet @max-3xl:hidden" aria-hidden="true">
            /
          </span>
          <span className="min-w-0 shrink truncate text-quiet @max-3xl:hidden">{section.title}</span>
        </>
      )}
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
        page {page.number} of {count}
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
      {onShut && <HeaderButton label="Lock it now" testId="shut" icon={<LockSimpleIcon size={22} weight="light" />} onPress={onShut} />}
      {onBeside && <HeaderButton label="Beside: a second page next to this one" testId="beside" icon={<ColumnsIcon size={22} weight="light" />} onPress={onBeside} />}
      {contents && <HeaderButton label="Contents" testId="contents" pressed={contents.shown} icon={<ListDashesIcon size={22} weight="light" />} onPress={contents.toggle} />}
      <Menu
        label="Export as PDF"
        testId="export"
        icon={<FilePdfIcon size={22} weight="light" />}
        entries={[
          { label: 'This page', testId: 'export-page', icon: <FilePdfIcon size={20} weight="light" />, onChoose: () => location.assign(`/api/spaces/${space.id}/pages/${page.id}/export.pdf`) },
          { label: 'The whole notebook', testId: 'export-notebook', icon: <FilePdfIcon size={20} weight="light" />, onChoose: () => location.assign(`/api/notebooks/${notebook.id}/export.pdf`) },
        ]}
      />
      {onClose && <HeaderButton label="Close the page beside" testId="close-beside" icon={<XIcon size={20} weight="light" />} onPress={onClose} />}
    </header>
  );
}

function HeaderButton({ label, icon, testId, pressed, onPress }: { label: string; icon: ReactNode; testId: string; pressed?: boolean; onPress: () => void }) {
  return (
    <button type="button" aria-label={label} title={label} aria-pressed={pressed} data-testid={testId} className={`grid size-10 shrink-0 place-items-center rounded-md hover:bg-base-200 ${pressed ? 'bg-base-200 text-primary' : 'text-quiet'}`} onClick={onPress}>
      {icon}
    </button>
  );
}

function Slash() {
  return (
    <span className="text-quiet" aria-hidden="true">
      /
    </span>
  );
}
