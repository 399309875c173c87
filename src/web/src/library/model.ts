export const root = '00000000-0000-0000-0000-000000000000';

export const colours = ['spruce', 'madder', 'sky', 'gold', 'plum', 'lichen'] as const;
export const covers = ['rings', 'dots', 'waves', 'rays', 'lattice'] as const;
export const defaultPaper = 'a4-ruled-710';

/** Papers to choose from, in words. */
export const papers: { paper: string; words: string }[] = [
  { paper: 'a4-ruled-710', words: 'Ruled, 7.1 mm' },
  { paper: 'a4-ruled-640', words: 'Ruled narrow, 6.4 mm' },
  { paper: 'a4-ruled-870', words: 'Ruled wide, 8.7 mm' },
  { paper: 'a4-squared-500', words: 'Squared, 5 mm' },
  { paper: 'a4-squared-1000', words: 'Squared, 10 mm' },
  { paper: 'a4-blank-710', words: 'Blank' },
];

export const nodeKinds = { folder: 1, notebook: 2, section: 3, page: 4, tag: 5, lens: 6 } as const;

/** A folder, notebook, tag or lens as Core gives it. `folded` and `natural` are its name for finding and for sorting. */
export interface LibraryNode {
  id: string;
  kind: 'folder' | 'notebook' | 'tag' | 'lens';
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
  inBin: boolean;
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

export function thumbnailPath(space: string, page: { id: string; paper: string; sequence: number }): string {
  return `/api/spaces/${space}/pages/${page.id}/thumbnail.svg?paper=${page.paper}&sequence=${page.sequence}`;
}
