import { t } from '@lingui/core/macro';
import { type PointerEvent as ReactPointerEvent, type RefObject, useEffect, useRef } from 'react';
import { useWorkspace } from '../data/useWorkspace';
import { useLightOn } from '../data/useLecterns';
import { toPage, type View } from '../sheet/ink/view';
import { Dimmed } from './Dimmed';
import { Trail } from './trail';
import { usualLight } from './light';

/** What a lectern lays over the sheet: the leader's trail, the spotlight, and for the leader the hand that points. */
export function LecternLayer({
  holder,
  page,
  view,
}: {
  holder: RefObject<HTMLDivElement | null>;
  page: string;
  view: View;
}) {
  const { lecterns } = useWorkspace();
  const { spot, hand } = useLightOn(page);
  const place = useRef<HTMLDivElement>(null);
  const trail = useRef<Trail>(undefined);
  useEffect(() => {
    const made = new Trail(place.current!);
    trail.current = made;
    const unhear = lecterns.onPoint((connection, on, places) => on === page && made.add(connection, places));
    return () => {
      unhear();
      made.stop();
    };
  }, [lecterns, page]);
  useEffect(() => trail.current?.setView(view), [view]);
  useEffect(() => {
    if (hand === 'pen') return undefined;
    const leave = (event: KeyboardEvent) => {
      // What lies over the page goes first.
      if (event.key !== 'Escape' || event.defaultPrevented || document.querySelector('[role=dialog]')) return;
      event.preventDefault();
      lecterns.take('pen');
    };
    addEventListener('keydown', leave, true);
    return () => removeEventListener('keydown', leave, true);
  }, [lecterns, hand]);

  const show = (event: ReactPointerEvent<HTMLDivElement>) => {
    const { x, y } = toPage(event, event.currentTarget.getBoundingClientRect(), view);
    if (hand === 'pointer') lecterns.point(x, y);
    else lecterns.light({ x, y, radius: spot?.radius ?? usualLight });
  };
  return (
    <>
      {spot && <Dimmed spot={spot} view={view} />}
      <div ref={place} className="pointer-events-none absolute inset-0" />
      {hand !== 'pen' && (
        <div
          role="application"
          aria-label={hand === 'pointer' ? t`Point with the pen` : t`Move the light with the pen`}
          data-testid="pointing-hand"
          className="absolute inset-0 cursor-none touch-none"
          onPointerMove={(event) => event.pointerType !== 'touch' && show(event)}
          onPointerDown={(event) => {
            // Fingers move the sheet as always.
            if (event.pointerType === 'touch')
              holder.current!.dispatchEvent(new PointerEvent(event.type, event.nativeEvent));
            else show(event);
          }}
          onWheel={(event) => holder.current!.dispatchEvent(new WheelEvent(event.type, event.nativeEvent))}
        />
      )}
    </>
  );
}
