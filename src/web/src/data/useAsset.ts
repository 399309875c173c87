import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useWorkspace } from './useWorkspace';

/** A picture or file of a space, once it can be had: from this device, or from the server as soon as it has it. */
export function useAsset(space: string | undefined, asset: string | undefined): Blob | undefined {
  const { assets } = useWorkspace();
  return useQuery({
    queryKey: ['asset', space, asset],
    queryFn: ({ signal }) => assets.whenHere(space!, asset!, signal),
    enabled: Boolean(space && asset),
    staleTime: Infinity,
    gcTime: 60_000,
    networkMode: 'always',
  }).data;
}

/** An address under which a picture is shown as long as the component is; undefined until it can be had. */
export function usePictureAddress(picture: Blob | undefined): string | undefined {
  const [address, setAddress] = useState<string>();
  useEffect(() => {
    if (!picture) return undefined;
    const made = URL.createObjectURL(picture);
    setAddress(made);
    return () => {
      setAddress(undefined);
      URL.revokeObjectURL(made);
    };
  }, [picture]);
  return address;
}
