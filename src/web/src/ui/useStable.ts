import { useLayoutEffect, useRef, useState } from 'react';

/** One object for good, whose functions do what those given last do: who listens is told once. */
export function useStable<T extends object>(functions: T): T {
  const latest = useRef(functions);
  useLayoutEffect(() => {
    latest.current = functions;
  });
  const [stable] = useState(
    () =>
      Object.fromEntries(
        Object.keys(functions).map((name) => [
          name,
          (...given: unknown[]) =>
            (latest.current as Record<string, (...given: unknown[]) => unknown>)[name]!(...given),
        ]),
      ) as T,
  );
  return stable;
}
