import { XIcon } from '@phosphor-icons/react';
import { useNavigate } from 'react-router';
import { inkOf } from '../model/colours';
import { closeNotebook } from '../data/openNotebooks';
import { useOpenTabs } from './useOpenTabs';

/** The notebooks that are open, as the spines of books on the rail: pressed, each opens where it was left. */
export function OpenTabs() {
  const { shown, here } = useOpenTabs();
  const navigate = useNavigate();
  if (shown.length === 0) return null;
  return (
    <ul aria-label="Open notebooks" className="mb-2 w-full border-b border-base-300 pb-2">
      {shown.slice(-5).map(({ space, notebook, page, node }) => (
        <li key={notebook} className="group relative">
          <button
            type="button"
            data-testid="open-tab"
            data-name={node.name}
            title={node.name}
            aria-current={here === notebook ? 'page' : undefined}
            className={`flex h-10 w-full items-center gap-1.5 pl-2 pr-1 text-left text-[11.5px] leading-[1.15] ${here === notebook ? 'bg-base-100 font-semibold' : 'hover:bg-base-100'}`}
            onClick={() => void navigate(`/page/${space}/${notebook}/${page}`)}
          >
            <svg viewBox="0 0 6 30" width="6" height="30" className="shrink-0" aria-hidden="true">
              <rect width="6" height="30" rx="1" fill={inkOf[node.colour] ?? inkOf.spruce} />
            </svg>
            <span className="line-clamp-2 min-w-0 [overflow-wrap:anywhere]">{node.name}</span>
          </button>
          <button
            type="button"
            aria-label={`Close ${node.name}`}
            title="Close"
            className="absolute right-0 top-0 hidden h-11 w-7 place-items-center bg-base-200 group-focus-within:grid group-hover:grid pointer-coarse:grid"
            onClick={() => {
              closeNotebook(notebook);
              if (here === notebook) void navigate('/desk');
            }}
          >
            <XIcon size={12} />
          </button>
        </li>
      ))}
    </ul>
  );
}
