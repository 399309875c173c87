import { t } from '@lingui/core/macro';
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
    <ul aria-label={t`Open notebooks`} className="mb-2 w-full border-b border-base-300 pb-2">
      {shown.slice(-5).map(({ space, notebook, page, node }) => (
        <li key={notebook} className="group relative">
          <button
            type="button"
            data-testid="open-tab"
            data-name={node.name}
            title={node.name}
            aria-current={here === notebook ? 'page' : undefined}
            className={`flex h-10 w-full items-center gap-1.5 ps-2 pe-1 text-start text-[11.5px] leading-[1.15] ${here === notebook ? 'bg-base-100 font-semibold' : 'hover:bg-base-100'}`}
            onClick={() => void navigate(`/page/${space}/${notebook}/${page}`)}
          >
            <svg viewBox="0 0 6 30" width="6" height="30" className="shrink-0" aria-hidden="true">
              <rect width="6" height="30" rx="1" fill={inkOf[node.colour] ?? inkOf.spruce} />
            </svg>
            <span className="line-clamp-2 min-w-0 [overflow-wrap:anywhere]">{node.name}</span>
          </button>
          <button
            type="button"
            aria-label={t`Close ${node.name}`}
            title={t`Close`}
            className="pointer-events-none absolute end-0 top-0 grid h-11 w-7 place-items-center bg-base-200 opacity-0 group-focus-within:pointer-events-auto group-focus-within:opacity-100 group-hover:pointer-events-auto group-hover:opacity-100 pointer-coarse:pointer-events-auto pointer-coarse:opacity-100"
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
