import { useEffect } from 'react';
import { useWorkspace } from '../data/useWorkspace';
import { getPainter } from '../pictures/painted';
import { rehearsals } from './rehearsal';
import { loaders } from './screens';

/**
 * What a person does often is done once on documents that are thrown away, while the browser has nothing else to do: the runtime compiles a function when it
 * is called first, and the first notebook of the day would pay for that. What is made is signed by nobody and kept nowhere.
 */
export function useRehearsal(): void {
  const { core } = useWorkspace();
  useEffect(() => {
    return eachWhenIdle([...loaders(), ...rehearsals(core), () => void getPainter()]);
  }, [core]);
}

/**
 * Does one after the other, each when there is nothing else to do; some browsers do not say when that is. A browser that waits for what a person has just asked for
 * counts as idle, too: nothing is done until they have what they wanted. Returns how to stop.
 */
function eachWhenIdle(parts: (() => void)[]): () => void {
  const ended = new AbortController();
  const { signal } = ended;
  let acted = -Infinity;
  for (const act of ['pointerdown', 'pointerup', 'click', 'keydown', 'wheel'])
    addEventListener(act, () => (acted = performance.now()), { capture: true, passive: true, signal });
  const next = () => {
    if (signal.aborted) return;
    const busy = acted + afterAct - performance.now();
    if (busy > 0) return void setTimeout(wait, busy);
    const part = parts.shift();
    if (!part) return ended.abort();
    part();
    wait();
  };
  const wait = () => ('requestIdleCallback' in window ? requestIdleCallback(next) : setTimeout(next, pause));
  wait();
  return () => ended.abort();
}

/** Milliseconds. */
const pause = 1_000;
/** So long after a person did something last, ms, it is done. */
const afterAct = 700;
