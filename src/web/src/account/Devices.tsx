import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { whenWords } from '../model/time';
import { getJson, sendJson } from '../server/api';
import { sentenceOf } from '../core/runtime';

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
      setProblem(sentenceOf(error));
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
                  {nameIn(device.name)}
                  {device.isThis && <span className="ms-2 text-[13px] text-quiet">{t`this one`}</span>}
                </p>
                <p className="truncate text-[13px] text-quiet">
                  {device.address
                    ? t`last used ${whenWords(device.seenAt)}, at ${device.address}`
                    : t`last used ${whenWords(device.seenAt)}`}
                </p>
              </div>
              {!device.isThis && (
                <Button
                  className="shrink-0"
                  data-testid="end-device"
                  onClick={() => void end(`/api/devices/${device.id}`)}
                >{t`End it`}</Button>
              )}
            </li>
          ))}
        </ul>
      )}
      {others > 1 && (
        <Button
          className="mt-2"
          data-testid="end-others"
          onClick={() => void end('/api/devices')}
        >{t`End all others`}</Button>
      )}
      <p role="alert" className="text-error">
        {problem}
      </p>
    </>
  );
}

/** The server calls a device after its browser and what that runs on. */
function nameIn(name: string): string {
  const [program, machine] = name.split(' on ');
  const called = program === 'A program' ? t`A program` : (program ?? '');
  return machine ? t`${called} on ${machine}` : called;
}
