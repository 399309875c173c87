export const root = '00000000-0000-0000-0000-000000000000';

export const colours = ['spruce', 'madder', 'sky', 'gold', 'plum', 'lichen'] as const;
export const defaultPaper = 'a4-ruled-710';

export const nodeKinds = {
  folder: 1,
  notebook: 2,
  section: 3,
  page: 4,
  tag: 5,
  lens: 6,
  paper: 7,
  markKind: 8,
  stamp: 9,
} as const;

/** A folder, notebook, tag or lens as Core gives it. `folded` and `natural` are its name for finding and for sorting. */
export interface LibraryNode {
  id: string;
  kind: 'folder' | 'notebook' | 'tag' | 'lens' | 'paper' | 'markKind' | 'stamp';
  parent: string;
  order: string;
  name: string;
  folded: string;
  natural: string;
  colour: string;
  cover: string;
  icon: string;
  paper: string;
  pinned: boolean;
  jot: boolean;
  tags: string[];
  rule?: string;
  lensSpace?: string;
  /** The asset of a paper of one's own, a stamp's file, or the picture on a notebook's cover. */
  source?: string;
  category?: string;
  createdAt: number;
  createdBy: string;
  binnedAt?: number;
  inBin: boolean;
}

/** A tag as people see it; `ids` are all ids that count as it. */
export interface Tag {
  id: string;
  parent: string;
  name: string;
  path: string;
  colour: string;
  ids: string[];
}

/** A section or page of a notebook. */
export interface NotebookEntry {
  id: string;
  kind: 'section' | 'page';
  parent: string;
  depth: number;
  title: string;
  colour: string;
  paper: string;
  number: number;
  tags: string[];
  createdAt: number;
  createdBy: string;
  inBin: boolean;
  /** Which page of a planner it is: `day/2026-10-08`. */
  planner?: string;
}

/** A notebook in sum, from the server. Times are UTC milliseconds. */
export interface Summary {
  notebook: string;
  pageCount: number;
  sections: string[];
  size: number;
  writtenAt: number | null;
  people: string[];
}

/** A page as strips show it. */
export interface ShownPage {
  notebook: string;
  id: string;
  number: number;
  title: string;
  paper: string;
  sequence: number;
  writtenAt: number | null;
  /** How many operations its document has; 0 or none where a list does not need it. */
  operations?: number;
}

/** Anything that stands in a list of the library. */
export interface Item {
  space: string;
  kind: 'folder' | 'notebook' | 'section' | 'page';
  id: string;
  /** Its notebook; of a notebook itself. */
  notebook: string;
  /** The folder it lies in. */
  folder: string;
  title: string;
  natural: string;
  order: string;
  notebookName: string;
  number: number;
  paper: string;
  sequence: number;
  createdAt: number;
  writtenAt: number | null;
  size: number;
  pinned: boolean;
  tags: Tag[];
  people: string[];
  node?: LibraryNode;
  summary?: Summary;
}

export function openPath(space: string, notebook: string, page = ''): string {
  return `/page/${space}/${notebook}/${page}`;
}

export function overviewPath(space: string, notebook: string): string {
  return `/pages/${space}/${notebook}`;
}

/** The same where it is to be recognised rather than seen whole: of a page that is mostly empty, its written part. */
export function stripPath(space: string, page: { id: string; paper: string; sequence: number }): string {
  return `${thumbnailPath(space, page)}&written=true`;
}

/** The address of a page's picture; with `until`, as it was by that time, UTC milliseconds. */
export function thumbnailPath(
  space: string,
  page: { id: string; paper: string; sequence: number; until?: number },
): string {
  const at = page.until === undefined ? '' : `&at=${page.until}`;
  return `/api/spaces/${space}/pages/${page.id}/thumbnail.svg?paper=${page.paper}&sequence=${page.sequence}${at}`;
}
