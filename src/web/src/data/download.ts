import { t } from '@lingui/core/macro';
import { sentenceOf } from '../core/runtime';
import { Cancelled, request, Unreachable } from '../server/api';
import type { Workspace } from '../sync/workspace';
import { saveBlob } from '../model/saveBlob';
import { say } from '../ui/saying';

/** What takes no longer than this is not spoken of, ms. */
const unspoken = 400;

/** A file that the server makes. */
export interface Wanted {
  path: string;
  /** What is made, for a person: “The notebook as PDF”. */
  words: string;
  /** What is asked for, where an address cannot hold it. */
  body?: unknown;
}

/** Fetches a file that the server makes and offers it to be saved. Says so when that takes a moment, or cannot be done; the application stays where it is. */
export function download(workspace: Workspace, { path, words, body }: Wanted): Promise<void> {
  return making(workspace, words, async (signal) => {
    const response = await request(
      body === undefined ? 'GET' : 'POST',
      path,
      body === undefined ? undefined : JSON.stringify(body),
      body === undefined ? undefined : 'application/json',
      signal,
    );
    saveBlob(nameIn(response) ?? 'Calm Quill', await response.blob());
  });
}

/** Makes a file with the server's help, saying how it goes. What was written last is sent first, so that it is in it. */
export async function making(
  workspace: Workspace,
  words: string,
  make: (signal: AbortSignal) => Promise<void>,
): Promise<void> {
  const cancel = new AbortController();
  let hasSpoken = false;
  const speaking = setTimeout(() => {
    hasSpoken = true;
    say(t`${words} is being made.`, { words: t`Cancel`, do: () => cancel.abort(), stays: true });
  }, unspoken);
  try {
    await workspace.outbox.settled().catch((problem: unknown) => {
      // What the server cannot take at present is no reason to make nothing of the rest.
      if (problem instanceof Unreachable) throw problem;
    });
    await make(cancel.signal);
    if (hasSpoken) say(t`${words} is made.`);
  } catch (problem) {
    say(
      problem instanceof Unreachable
        ? t`${words} is made by the server, which cannot be reached now. Nothing was saved; try it again with a connection.`
        : problem instanceof Cancelled
          ? t`Cancelled. Nothing was saved.`
          : sentenceOf(problem),
    );
  } finally {
    clearTimeout(speaking);
  }
}

/** The name that the server gives the file (RFC 6266: the one with an encoding before the plain one). */
function nameIn(response: Response): string | undefined {
  const disposition = response.headers.get('Content-Disposition') ?? '';
  const encoded = /filename\*=UTF-8''([^;]+)/i.exec(disposition)?.[1];
  return encoded ? decodeURIComponent(encoded) : /filename="?([^";]+)"?/i.exec(disposition)?.[1];
}
