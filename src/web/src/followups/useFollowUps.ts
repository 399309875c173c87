import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { doing } from '../data/doing';
import { setSpotOn, type ShownSpot, type Spot } from '../data/spots';
import { useUnsentSpots } from '../data/useNotebookSpots';
import { withoutNews } from '../data/useNews';
import { useWorkspace } from '../data/useWorkspace';

/** All marks that one may see, newest first; what this device has not sent yet is already in them. */
export function useFollowUps(all: boolean): { marks: ShownSpot[]; refetch: () => void } {
  const workspace = useWorkspace();
  const { data, dataUpdatedAt, refetch } = useQuery({
    queryKey: ['follow-ups', all],
    queryFn: () => workspace.list<ShownSpot[]>('/api/follow-ups', all ? '?all=true' : ''),
    refetchInterval: withoutNews,
    refetchOnMount: 'always',
    staleTime: 5_000,
  });
  const local = useUnsentSpots(dataUpdatedAt);
  const marks = useMemo(() => {
    return (data ?? [])
      .map((mark) => (local.has(mark.page) ? withLocal(mark, local.get(mark.page)!) : mark))
      .filter((mark) => mark !== undefined && (all || mark.isOpen)) as ShownSpot[];
  }, [data, local, all]);
  return { marks, refetch: () => void refetch() };
}

function withLocal(mark: ShownSpot, spots: Spot[]): ShownSpot | undefined {
  const spot = spots.find((one) => one.id === mark.id);
  return (
    spot && {
      ...mark,
      isOpen: spot.open,
      answers: spot.answers.length,
      isAnswered: spot.answered,
      doneAt: spot.doneAt ?? null,
      doneBy: spot.doneBy ?? null,
      note: spot.note ?? '',
      due: spot.due ?? '',
      person: spot.person ?? null,
      mark: spot.mark ?? mark.mark,
    }
  );
}

/** How many marks are open, for the rail. */
export function useOpenCount(): number {
  return useFollowUps(false).marks.length;
}

/** Ticks a mark off, or opens it again, on its own page. */
export function useTick(): (mark: ShownSpot, done: boolean) => Promise<void> {
  const workspace = useWorkspace();
  return (mark, done) =>
    doing(workspace, done ? t`Ticked off.` : t`It is open again.`, () =>
      setSpotOn(workspace, mark.space, mark.page, mark.id, { done: done ? '1' : '' }),
    );
}
