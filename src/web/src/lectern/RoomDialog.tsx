import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { sentenceOf } from '../core/runtime';
import { sendJson } from '../server/api';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { copyText } from '../ui/saying';
import { SquareCode } from '../ui/SquareCode';

interface Room {
  code: string;
  link: string;
  modules: string[];
}

/** How a screen in the room comes to show the sheet: an address, and a code that is read from across the room. */
export function RoomDialog({ space, notebook, onClose }: { space: string; notebook: string; onClose: () => void }) {
  const { data, error } = useQuery({
    queryKey: ['room', space, notebook],
    queryFn: () => sendJson<Room>('POST', `/api/spaces/${space}/notebooks/${notebook}/lectern/room`),
    retry: false,
    staleTime: 0,
  });
  const address = data?.link.split('#')[0] ?? '';
  return (
    <Dialog title={t`A screen for the room`} onClose={onClose}>
      {error && (
        <p role="alert" className="text-error" data-testid="room-problem">
          {sentenceOf(error)}
        </p>
      )}
      {data && (
        <>
          <p>{t`On the screen that all see, open this address and type the code. It shows the sheet alone, as you show it, and nobody signs in there.`}</p>
          <div className="mt-4 flex items-center gap-5">
            <div className="min-w-0 grow">
              <p className="break-all text-quiet" data-testid="room-address">
                {address.replace(/^https?:\/\//, '')}
              </p>
              <p className="mt-1 whitespace-nowrap font-title text-[34px] tracking-[0.06em]" data-testid="room-code">
                {`${data.code.slice(0, 4)} ${data.code.slice(4)}`}
              </p>
            </div>
            <SquareCode modules={data.modules} label={t`The address with its code, for a camera`} className="size-32" />
          </div>
          <p className="mt-4 text-[13px] text-quiet">{t`The code ends with the lectern.`}</p>
          <div className="mt-4 flex justify-end gap-2">
            <Button onClick={() => copyText(data.link)}>{t`Copy the address`}</Button>
            <Button look="primary" data-testid="room-done" onClick={onClose}>{t`Done`}</Button>
          </div>
        </>
      )}
    </Dialog>
  );
}
