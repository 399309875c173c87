import { useFollowsIn, useLecterns, useOwnLectern } from '../data/useLecterns';
import { Following } from './Following';
import { Leading } from './Leading';
import type { LecternLineProps } from './Line';

/** Under the line above the sheet, while somebody teaches from the notebook: for the leader what they show with, for the others that they can follow. */
export function LecternLine(props: LecternLineProps) {
  const own = useOwnLectern();
  const follows = useFollowsIn(props.at.notebook);
  const shown = useLecterns().find((one) => one.notebook === props.at.notebook);
  if (own?.notebook === props.at.notebook) return <Leading {...props} lectern={own} />;
  if (shown || follows) return <Following {...props} lectern={shown} />;
  return null;
}
