import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { download } from '../data/download';
import { useWorkspace } from '../data/useWorkspace';
import { useSession } from '../server/session';
import { Button } from '../ui/Button';
import { Switch } from '../ui/Segments';

/** All that is one's own as one archive of files that other programs open. */
export function TakeAlong() {
  const workspace = useWorkspace();
  const { spaces } = useSession();
  const [withGroups, setWithGroups] = useState(false);
  return (
    <div data-testid="take-along">
      <p className="text-quiet">{t`Each notebook as a PDF and its pages as SVG, in your folders; your asides; and a list of what is there. What is locked or in the bin is not among it.`}</p>
      {spaces.some((space) => !space.personal) && (
        <Switch
          label={t`Also the notebooks of my groups`}
          on={withGroups}
          testId="take-groups"
          onChange={setWithGroups}
        />
      )}
      <Button
        className="mt-3"
        data-testid="take-everything"
        onClick={() =>
          void download(workspace, {
            path: `/api/people/me/everything.zip${withGroups ? '?groups=true' : ''}`,
            words: t`Everything that is yours`,
          })
        }
      >{t`Take everything with me`}</Button>
    </div>
  );
}
