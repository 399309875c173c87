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

/** Does one after the other, each when there is nothing else to do; some browsers do not say when that is. Returns how to stop. */
function eachWhenIdle(parts: (() => void)[]): () => void {
  let ended = false;
  const next = () => {
    const part = ended ? undefined : parts.shift();
    if (!part) return;
    part();
    wait();
  };
  const wait = () => ('requestIdleCallback' in window ? requestIdleCallback(next) : setTimeout(next, pause));
  wait();
  return () => {
    ended = true;
  };
}

/** Milliseconds. */
const pause = 1_000;
