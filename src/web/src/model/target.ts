import { openPath } from './items';

/** Where a link inside leads, by ids; see LinkTarget in Core. */
export type Target =
  | { kind: 'web'; address: string }
  | { kind: 'notebook'; space: string; notebook: string }
  | { kind: 'section'; space: string; notebook: string; section: string }
  | { kind: 'page'; space: string; notebook: string; page: string }
  | { kind: 'place'; space: string; notebook: string; page: string; x: number; y: number }
  | { kind: 'mark'; space: string; notebook: string; page: string; mark: string };

export function writeTarget(target: Target): string {
  switch (target.kind) {
    case 'web':
      return target.address;
    case 'notebook':
      return `notebook:${target.space}/${target.notebook}`;
    case 'section':
      return `section:${target.space}/${target.notebook}/${target.section}`;
    case 'page':
      return `page:${target.space}/${target.notebook}/${target.page}`;
    case 'place':
      return `place:${target.space}/${target.notebook}/${target.page}/${Math.round(target.x)},${Math.round(target.y)}`;
    case 'mark':
      return `mark:${target.space}/${target.notebook}/${target.page}/${target.mark}`;
  }
}

export function readTarget(text: string): Target {
  const [, kind, rest = ''] = /^(notebook|section|page|place|mark):(.*)$/.exec(text) ?? [];
  const [space = '', notebook = '', page = '', part = ''] = rest.split('/');
  switch (kind) {
    case 'notebook':
      return { kind, space, notebook };
    case 'section':
      return { kind, space, notebook, section: page };
    case 'page':
      return { kind, space, notebook, page };
    case 'place': {
      const [x, y] = part.split(',').map(Number);
      return { kind, space, notebook, page, x: x ?? 0, y: y ?? 0 };
    }
    case 'mark':
      return { kind, space, notebook, page, mark: part };
    default:
      return { kind: 'web', address: text };
  }
}

/** The address of something inside, as it is copied: it works in the browser as well as when pasted as a link. */
export function addressOf(target: Exclude<Target, { kind: 'web' }>): string {
  return location.origin + pathOf(target);
}

export function pathOf(target: Exclude<Target, { kind: 'web' }>): string {
  switch (target.kind) {
    case 'notebook':
      return openPath(target.space, target.notebook);
    case 'section':
      return `${openPath(target.space, target.notebook)}?section=${target.section}`;
    case 'place':
      return `${openPath(target.space, target.notebook, target.page)}?at=${Math.round(target.x)},${Math.round(target.y)}`;
    case 'mark':
      return `${openPath(target.space, target.notebook, target.page)}?mark=${target.mark}`;
    default:
      return openPath(target.space, target.notebook, target.page);
  }
}

/** A host with a domain, such as example.org, and what follows it; a file name or a number with a point is none. */
const looksLikeHost = /^(?=[^/]*[a-z])([a-z0-9-]+\.)+[a-z]{2,}(:\d+)?([/?#]\S*)?$/i;

/** What was typed or pasted as a link: an address of this application becomes a link inside. Undefined when it is no address. */
export function targetOfAddress(text: string): Target | undefined {
  const typed = text.trim();
  const address = /^(https?:\/\/|mailto:)/i.test(typed)
    ? typed
    : looksLikeHost.test(typed)
      ? `https://${typed}`
      : /^[^\s@/]+@[^\s@/]+\.[a-z]{2,}$/i.test(typed)
        ? `mailto:${typed}`
        : '';
  if (!address || !URL.canParse(address)) return undefined;
  const url = new URL(address);
  const [, , space, notebook, page] = url.pathname.split('/');
  if (url.origin !== location.origin || !url.pathname.startsWith('/page/') || !space || !notebook)
    return { kind: 'web', address };
  if (!page) {
    const section = url.searchParams.get('section');
    return section ? { kind: 'section', space, notebook, section } : { kind: 'notebook', space, notebook };
  }
  const mark = url.searchParams.get('mark');
  if (mark) return { kind: 'mark', space, notebook, page, mark };
  const at = url.searchParams.get('at')?.split(',').map(Number);
  return at
    ? { kind: 'place', space, notebook, page, x: at[0] ?? 0, y: at[1] ?? 0 }
    : { kind: 'page', space, notebook, page };
}
