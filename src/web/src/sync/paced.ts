/**
 * Something that is asked for more often than it is worth doing: it is done once for all that asked meanwhile, no more often than so.
 * @param between ms from the first asking until it is done.
 */
export function paced(between: number, task: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  return () => {
    timer ??= setTimeout(() => {
      timer = undefined;
      task();
    }, between);
  };
}
