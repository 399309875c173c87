import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { bytesWords } from '../model/bytes';
import { getJson } from '../server/api';
import { numberWords } from '../words/language';

interface SpaceUsage {
  operations: number;
  bytes: number;
  assetBytes: number;
  mostOperations: number;
  mostBytes: number;
  mostAssetBytes: number;
}

/** What a library holds on the server against what it may hold. */
export function Usage({ space }: { space: string }) {
  const { data } = useQuery({
    queryKey: ['usage', space],
    queryFn: () => getJson<SpaceUsage>(`/api/spaces/${space}/usage`),
    refetchOnMount: 'always',
  });
  if (!data) return null;
  return (
    <ul className="grid max-w-[440px] gap-3" data-testid="usage">
      <Line
        name={t`Writing`}
        words={t`${bytesWords(data.bytes)} of ${bytesWords(data.mostBytes)}`}
        share={data.bytes / data.mostBytes}
      />
      <Line
        name={t`Changes kept`}
        words={t`${numberWords(data.operations)} of ${numberWords(data.mostOperations)}`}
        share={data.operations / data.mostOperations}
      />
      <Line
        name={t`Pictures and papers`}
        words={t`${bytesWords(data.assetBytes)} of ${bytesWords(data.mostAssetBytes)}`}
        share={data.assetBytes / data.mostAssetBytes}
      />
    </ul>
  );
}

function Line({ name, words, share }: { name: string; words: string; share: number }) {
  return (
    <li>
      <p className="flex justify-between gap-4">
        <span>{name}</span>
        <span className="text-quiet">{words}</span>
      </p>
      <div className="mt-1 h-1 bg-base-300" aria-hidden="true">
        <div
          className={`h-full ${share > 0.9 ? 'bg-accent' : 'bg-secondary'}`}
          style={{ width: `${Math.max(0.5, Math.min(100, share * 100))}%` }}
        />
      </div>
    </li>
  );
}
