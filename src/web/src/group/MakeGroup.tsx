import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { Button } from '../ui/Button';
import { GroupDialog } from './GroupDialog';
import { useGroupActs } from './groups';

/** The way to a group of one's own. */
export function MakeGroup({ look = 'quiet' }: { look?: 'primary' | 'quiet' }) {
  const { make } = useGroupActs();
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Button look={look} data-testid="make-group" onClick={() => setAsking(true)}>{t`Make a group`}</Button>
      {asking && (
        <GroupDialog
          title={t`A new group`}
          confirm={t`Make the group`}
          onConfirm={make}
          onClose={() => setAsking(false)}
        />
      )}
    </>
  );
}
