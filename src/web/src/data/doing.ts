import { useMemo } from 'react';
import { sentenceOf } from '../core/runtime';
import type { Noted } from '../sync/steps';
import type { Workspace } from '../sync/workspace';
import { say, takeBack } from '../ui/saying';
import { useWorkspace } from './useWorkspace';

/** Does something, and says it with the way to take it back; or says why it could not be done. */
export type Act = (words: string, work: () => unknown) => void;

export function useAct(): Act {
  const workspace = useWorkspace();
  return useMemo(
    () => (words, work) => void doing(workspace, words, work).catch((problem: unknown) => say(sentenceOf(problem))),
    [workspace],
  );
}

/** Does something, and says it with the way to take it back. What the work throws is thrown; what it had done until then can be taken back all the same. */
export async function doing(workspace: Workspace, words: string, work: () => unknown): Promise<void> {
  const end = workspace.steps.begin();
  let noted: Noted[] = [];
  try {
    // What is done at once is seen at once.
    const answer = work();
    if (answer instanceof Promise) await answer;
  } finally {
    noted = end();
    if (noted.length > 0)
      say(
        words,
        takeBack(() => workspace.takeBack(noted)),
      );
  }
  if (noted.length === 0 && words) say(words);
}
