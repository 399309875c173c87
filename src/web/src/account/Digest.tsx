import { t } from '@lingui/core/macro';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { sentenceOf } from '../core/runtime';
import { getJson, sendJson } from '../server/api';
import { Switch } from '../ui/Segments';

const path = '/api/people/me/digest';

/** Whether one is told by mail, once a day at most, what was said to one. */
export function Digest() {
  const queries = useQueryClient();
  const [problem, setProblem] = useState('');
  const { data } = useQuery({ queryKey: ['digest'], queryFn: () => getJson<{ on: boolean; canMail: boolean }>(path) });
  if (!data) return null;
  if (!data.canMail) return <p className="text-quiet">{t`This server sends no mail.`}</p>;
  const choose = async (on: boolean) => {
    try {
      await sendJson('PUT', path, { on });
      setProblem('');
      await queries.invalidateQueries({ queryKey: ['digest'] });
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  return (
    <div className="max-w-[420px]">
      <Switch
        label={t`Mail me what was said to me, once a day at most`}
        on={data.on}
        testId="digest"
        onChange={(on) => void choose(on)}
      />
      {problem && (
        <p role="alert" className="text-error">
          {problem}
        </p>
      )}
    </div>
  );
}
