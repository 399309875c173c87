import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { whenWords } from '../model/time';
import { getJson, sendJson } from '../server/api';

interface Device {
  id: string;
  name: string;
  address: string;
  madeAt: number;
  seenAt: number;
  isThis: boolean;
}

/** Where one is signed in; each, or all others, can be ended. */
export function Devices() {
  const queries = useQueryClient();
  const [problem, setProblem] = useState('');
  const { data } = useQuery({
    queryKey: ['devices'],
    queryFn: () => getJson<Device[]>('/api/devices'),
    refetchOnMount: 'always',
  });
  const end = async (path: string) => {
    setProblem('');
    try {
      await sendJson('DELETE', path);
    } catch (error) {
      setProblem((error as Error).message);
    }
    await queries.invalidateQueries({ queryKey: ['devices'] });
  };
  const others = (data ?? []).filter((device) => !device.isThis).length;
  return (
    <>
      {data && (
        <ul className="-mt-3">
          {data.map((device) => (
            <li
              key={device.id}
              className="flex items-center gap-3 border-b border-base-300 py-2 last:border-0"
              data-testid="device"
            >
              <div className="min-w-0 grow">
                <p className="truncate">
                  {device.name}
                  {device.isThis && <span className="ml-2 text-[13px] text-quiet">this one</span>}
                </p>
                <p className="truncate text-[13px] text-quiet">
                  last used {whenWords(new Date(device.seenAt).toISOString())}
                  {device.address && `, at ${device.address}`}
                </p>
              </div>
              {!device.isThis && (
                <button
                  type="button"
                  className="quiet-button h-11 shrink-0"
                  data-testid="end-device"
                  onClick={() => void end(`/api/devices/${device.id}`)}
                >
                  End it
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      {others > 1 && (
        <button
          type="button"
          className="quiet-button mt-2 h-11"
          data-testid="end-others"
          onClick={() => void end('/api/devices')}
        >
          End all others
        </button>
      )}
      <p role="alert" className="text-error">
        {problem}
      </p>
    </>
  );
}
