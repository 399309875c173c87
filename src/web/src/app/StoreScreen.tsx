import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import type { ReactNode } from 'react';

/** How it stands with the device's store. */
export type StoreStanding = 'opening' | 'blocked' | 'taken' | 'failed' | 'open';

/** What is shown instead of the screens while the device's store cannot be used. */
export function StoreScreen({ standing, problem }: { standing: StoreStanding; problem: string }) {
  if (standing === 'opening')
    return <p className="grid h-full place-items-center text-quiet">{t`Opening the library`}</p>;
  if (standing === 'blocked')
    return (
      <Standing
        title={t`Close the other tabs`}
        testId="store-blocked"
      >{t`An older version of Calm Quill is open in another tab of this browser. Close it, or reload it; this one goes on by itself then. Nothing that you wrote is lost.`}</Standing>
    );
  if (standing === 'taken')
    return (
      <Standing
        title={t`A newer version is open`}
        testId="store-taken"
        reload
      >{t`Calm Quill was opened in a newer version in another tab. Reload this one to go on; what you wrote is kept.`}</Standing>
    );
  return (
    <Standing
      title={t`This browser cannot open what it holds`}
      testId="store-failed"
      reload
    >{t`${problem} What the server has is safe. A private window often cannot keep anything; a usual one can.`}</Standing>
  );
}

function Standing({
  title,
  testId,
  reload,
  children,
}: {
  title: string;
  testId: string;
  reload?: boolean;
  children: ReactNode;
}) {
  return (
    <div role="alert" className="grid h-full place-items-center p-6" data-testid={testId}>
      <div className="max-w-[460px]">
        <h1 className="mb-2 text-[28px] leading-tight">{title}</h1>
        <p className="mb-5">{children}</p>
        {reload && <Button look="primary" onClick={() => location.reload()}>{t`Reload`}</Button>}
      </div>
    </div>
  );
}
