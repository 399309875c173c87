/** Addresses of fonts by the names that Core calls them by. */
export const byName = (addresses: Record<string, string>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(addresses).map(([file, address]) => [file.split('/').at(-1)!.replace('.ttf', ''), address]),
  );
