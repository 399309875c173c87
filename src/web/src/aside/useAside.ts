import { type RefObject, useEffect, useState } from 'react';
import { type AsideNote, usePersonal } from '../data/usePersonal';
import { useDocument, useWorkspace } from '../data/useWorkspace';
import { useSession } from '../server/session';
import { Blotter } from '../sheet/blotter/blotter';
import type { Under } from '../sheet/blotter/ground';
import type { Tools } from '../sheet/hand/tool';
import type { NextPages } from '../sheet/ink/neighbours';
import { aside as offer } from '../sheet/tools/aside';
import { curtain } from '../sheet/tools/curtain';
import { mark } from '../sheet/tools/mark';
import type { OpenDocument } from '../sync/openDocument';

const liftedKey = 'quill.aside.lifted';
/** Marks and curtains are the page's: who asks wants to be seen asking. */
const ofThePage: ReadonlySet<string> = new Set([mark.name, curtain.name]);
const alone: NextPages = { turning: 'down', before: undefined, after: undefined };
const noRoom = { left: 0, right: 0 };

/** Whether the hand is to write on the aside with the tool that it holds. */
export const wantsAside = (tools: Tools): boolean => tools.isOn(offer.name) && !ofThePage.has(tools.held);

export interface OnAside {
  /** The aside while it lies over the page; undefined while it is lifted, or is being opened. */
  document: OpenDocument | undefined;
  blotter: Blotter | undefined;
  /** Whether something was written on it before. */
  isThere: boolean;
  isLaid: boolean;
  /** Whether the hand is to write on it; until it is open, the hand writes nowhere, since what is meant for it is nobody else's business. */
  isWanted: boolean;
  /** Whether it is what the hand writes on. */
  isInHand: boolean;
  lay: (writes: boolean) => void;
  lift: () => void;
}

interface LaidOver {
  page: OpenDocument;
  note: AsideNote;
  tools: Tools;
  main: Blotter | undefined;
  under: Under;
  /** The page is seen as it was: what was written over it since has no place there. */
  isAway: boolean;
}

/** The person's aside of a page: laid over it, lifted off it, and gone along with what it was written at. */
export function useAside(
  holder: RefObject<HTMLDivElement | null>,
  { page, note, tools, main, under, isAway }: LaidOver,
): OnAside {
  const { core, live } = useWorkspace();
  const { spaces } = useSession();
  const personal = usePersonal();
  const [isLifted, setLifted] = useState(() => localStorage.getItem(liftedKey) === '1');
  const isThere = !isAway && (personal?.asides.has(page.id) ?? false);
  const isLaid = !isAway && (tools.isOn(offer.name) || (isThere && !isLifted));
  const own = spaces.find((space) => space.personal)!.id;
  const document = useDocument(own, 'aside', isLaid ? page.id : '');
  const [blotter, setBlotter] = useState<Blotter>();
  useLying(document, page);
  useNoting(document, page.id, note);

  useEffect(() => {
    if (!document || !main || !holder.current) return undefined;
    const made = new Blotter(holder.current, {
      core,
      page: document,
      live,
      under,
      mayWrite: true,
      room: noRoom,
      next: alone,
      over: main,
    });
    setBlotter(made);
    return () => {
      made.stop();
      setBlotter(undefined);
    };
  }, [core, document, live, main, under.paper]);

  const keepLifted = (lifted: boolean) => {
    localStorage.setItem(liftedKey, lifted ? '1' : '0');
    setLifted(lifted);
  };
  const isWanted = !isAway && wantsAside(tools);
  // Whoever takes it up has it lie there afterwards too.
  useEffect(() => {
    if (isWanted && isLifted) keepLifted(false);
  }, [isWanted]);
  return {
    document,
    blotter,
    isThere,
    isLaid,
    isWanted,
    isInHand: isWanted && blotter !== undefined,
    lay: (writes) => {
      keepLifted(false);
      tools.turn(offer.name, writes);
      if (writes) tools.setReading(false);
    },
    lift: () => {
      keepLifted(true);
      tools.turn(offer.name, false);
    },
  };
}

/** Takes along what lies on the aside when its page moves under it, and says of what is written at what it was written. */
function useLying(aside: OpenDocument | undefined, page: OpenDocument): void {
  const { AsideBridge } = useWorkspace().core;
  useEffect(() => {
    if (!aside) return undefined;
    let ended = false;
    const lie = () => {
      if (!ended && !aside.isHeld && !page.isHeld && AsideBridge.Lay(aside.handle, page.handle)) aside.wasCarried();
    };
    const written = () => {
      lie();
      // What was written is on its way first.
      queueMicrotask(() => {
        if (!ended && !aside.isHeld) aside.performTogether((handle, now) => AsideBridge.Anchor(handle, now));
      });
    };
    lie();
    const unhear = [page.subscribe(lie), aside.subscribe(written)];
    return () => {
      ended = true;
      for (const stop of unhear) stop();
    };
  }, [AsideBridge, aside, page]);
}

/** Notes in the person's own library that there is an aside, and where its page is now. */
function useNoting(aside: OpenDocument | undefined, page: string, note: AsideNote): void {
  const { PageBridge } = useWorkspace().core;
  const personal = usePersonal();
  const known = personal?.asides.get(page);
  const mayUndo = aside !== undefined && !aside.isHeld && (PageBridge.Steps(aside.handle) & 1) !== 0;
  const isOther = JSON.stringify(known) !== JSON.stringify(note);
  useEffect(() => {
    if (personal && isOther && (known || mayUndo)) personal.noteAside(page, note);
  }, [page, isOther, mayUndo, personal === undefined]);
}
