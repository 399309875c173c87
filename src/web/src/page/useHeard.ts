import { useEffect, useState } from 'react';

type Tell<T> = (connection: string, told: T | undefined) => void;

/** What connections told last, by connection, until they tell that it is over, or nothing for so long: a connection may have broken. */
export function useHeard<T>(staysFor: number, listen: (tell: Tell<T>) => () => void): ReadonlyMap<string, T> {
  const [heard, setHeard] = useState<ReadonlyMap<string, { told: T; at: number }>>(new Map());
  useEffect(() => {
    const stop = listen((connection, told) =>
      setHeard((before) => {
        const after = new Map(before);
        if (told === undefined) after.delete(connection);
        else after.set(connection, { told, at: Date.now() });
        return after;
      }),
    );
    const sweep = setInterval(
      () =>
        setHeard((before) => {
          const left = [...before].filter(([, { at }]) => Date.now() - at < staysFor);
          return left.length === before.size ? before : new Map(left);
        }),
      1_000,
    );
    return () => {
      stop();
      clearInterval(sweep);
      setHeard(new Map());
    };
  }, [staysFor, listen]);
  return new Map([...heard].map(([connection, { told }]) => [connection, told]));
}
