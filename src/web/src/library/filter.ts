import { t } from '@lingui/core/macro';
import type { Library } from '../data/Library';

/** How a tag takes part in a filter. */
export type TagUse = 'any' | 'all' | 'none';

/** What is chosen in the filter bar. */
export interface Filter {
  tags: Record<string, TagUse>;
  kind: '' | 'notebook' | 'section' | 'page';
  written: string;
  starred: boolean;
  person: string;
  folder: string;
  titled: string;
}

export const noFilter: Filter = { tags: {}, kind: '', written: '', starred: false, person: '', folder: '', titled: '' };

/** The named stretches of time, as Core knows them. */
export const spans: { name: string; words: string }[] = [
  { name: 'today', words: t`Today` },
  { name: 'this-week', words: t`This week` },
  { name: 'past-7-days', words: t`Past 7 days` },
  { name: 'past-30-days', words: t`Past 30 days` },
  { name: 'this-term', words: t`This term` },
  { name: 'this-year', words: t`This year` },
];

export type Rule = Record<string, unknown>;

export function isChosen(filter: Filter): boolean {
  return JSON.stringify(filter) !== JSON.stringify(noFilter);
}

/** The filter as a rule for Core and the server. */
export function ruleOf(filter: Filter): string {
  const all: Rule[] = [];
  const byUse = (use: TagUse) =>
    Object.keys(filter.tags)
      .filter((tag) => filter.tags[tag] === use)
      .map((tag) => ({ tag }));
  if (byUse('any').length > 0) all.push({ any: byUse('any') });
  all.push(...byUse('all'));
  if (byUse('none').length > 0) all.push({ not: { any: byUse('none') } });
  if (filter.kind) all.push({ kind: filter.kind });
  if (filter.written) all.push({ written: filter.written });
  if (filter.starred) all.push({ starred: true });
  if (filter.person) all.push({ by: filter.person });
  if (filter.folder) all.push({ within: filter.folder });
  if (filter.titled.trim()) all.push({ titled: filter.titled.trim() });
  return JSON.stringify({ all });
}

/** The same question to another library: its tags of the same names, which have ids of their own there. */
export function inLibrary(filter: Filter, from: Library, to: Library): Filter {
  if (from === to) return filter;
  const tags: Filter['tags'] = {};
  for (const [id, use] of Object.entries(filter.tags)) {
    const path = from.tagsOf([id])[0]?.path;
    const same = path && to.tags.find((tag) => tag.path.toLowerCase() === path.toLowerCase());
    tags[same ? same.id : id] = use;
  }
  return { ...filter, tags };
}

/** Two questions, both of which must be answered with yes. */
export function both(one: string | undefined, other: string): string {
  if (!one) return other;
  const [first, second] = [JSON.parse(one) as Rule, JSON.parse(other) as Rule];
  const terms = (rule: Rule) => (Array.isArray(rule.all) ? (rule.all as Rule[]) : [rule]);
  return JSON.stringify({ all: [...terms(first), ...terms(second)] });
}

/** The filter that a rule came from; undefined for a rule of another shape. */
export function filterOf(rule: string): Filter | undefined {
  try {
    const { all } = JSON.parse(rule) as { all?: Rule[] };
    if (!all) return undefined;
    const filter: Filter = { ...noFilter, tags: {} };
    for (const term of all) {
      const [name, value] = Object.entries(term)[0]!;
      if (name === 'tag') filter.tags[value as string] = 'all';
      else if (name === 'any') for (const one of value as { tag: string }[]) filter.tags[one.tag] = 'any';
      else if (name === 'not')
        for (const one of (value as { any: { tag: string }[] }).any) filter.tags[one.tag] = 'none';
      else if (name === 'kind') filter.kind = value as Filter['kind'];
      else if (name === 'written') filter.written = value as string;
      else if (name === 'starred') filter.starred = true;
      else if (name === 'by') filter.person = value as string;
      else if (name === 'within') filter.folder = value as string;
      else if (name === 'titled') filter.titled = value as string;
      else return undefined;
    }
    return filter;
  } catch {
    return undefined;
  }
}
