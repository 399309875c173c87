import { type RefObject, useEffect, useLayoutEffect, useRef } from 'react';
import type { ShownFormula } from '../../../core/formulaBridge';
import { useWorkspace } from '../../../data/useWorkspace';
import type { OpenDocument } from '../../../sync/openDocument';
import { TypedAhead } from '../../hand/typedAhead';

/** What stands between the same letters before and behind it in two texts: from where to where in the first, and the letters of the second. */
export function differenceOf(before: string, after: string): { from: number; to: number; letters: string } {
  const least = Math.min(before.length, after.length);
  let from = 0;
  while (from < least && before[from] === after[from]) from++;
  let same = 0;
  while (same < least - from && before[before.length - 1 - same] === after[after.length - 1 - same]) same++;
  return { from, to: before.length - same, letters: after.slice(from, after.length - same) };
}

/** Types what a formula is made of, in a field beside it: letter by letter, so that two people type in one at once. */
export function useSource(
  field: RefObject<HTMLTextAreaElement | null>,
  page: OpenDocument,
  item: string,
  text: string,
): { begin: () => void; change: (to: string) => void; select: () => void; end: () => void } {
  const { core, live } = useWorkspace();
  const typed = useRef<TypedAhead>(undefined);
  const tell = () => {
    const [into, from, to] = core.TextBridge.Caret(page.handle);
    if (into) live.say('Caret', page.address, into, from!, to!);
  };
  const begin = () => {
    if (typed.current) return;
    const own = new TypedAhead(core, page, () => own.end());
    own.open(item);
    typed.current = own;
  };
  const end = () => {
    const own = typed.current;
    if (!own) return;
    typed.current = undefined;
    own.end();
    own.close();
    live.say('Caret', page.address, '', '', '');
  };
  const select = () => {
    const { current } = field;
    if (!current || !typed.current?.isThere()) return;
    core.TextBridge.Select(page.handle, current.selectionStart, current.selectionEnd);
    tell();
  };
  const change = (to: string) => {
    begin();
    const own = typed.current!;
    const standing = core.FormulaBridge.Formula(page.handle, item);
    if (!standing || !own.isThere()) return;
    const { from, to: behind, letters } = differenceOf((JSON.parse(standing) as ShownFormula).text, to);
    own.type(() => core.TextBridge.Type(page.handle, from, behind, letters), letters.length);
    select();
    if (own.isMuch) own.end();
  };

  useEffect(() => {
    const leave = () => typed.current?.end();
    addEventListener('pagehide', leave);
    return () => {
      removeEventListener('pagehide', leave);
      end();
    };
  }, [page, item]);

  // What somebody else types moves the caret along with its letters.
  useLayoutEffect(() => {
    const { current } = field;
    const [from, to] = typed.current ? core.FormulaBridge.Selection(page.handle) : [];
    if (!current || document.activeElement !== current || from === undefined) return;
    if (current.selectionStart !== from || current.selectionEnd !== to) current.setSelectionRange(from, to!);
  }, [text]);

  return { begin, change, select, end };
}
