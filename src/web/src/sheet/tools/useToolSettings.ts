import { useState } from 'react';
import { handTools } from './handTools';
import type { Tool } from '../hand/tool';

const key = 'quill.tools';

type Settings = Readonly<Record<string, object>>;

/** What each tool is set to, kept on this device. */
export function useToolSettings(): {
  settings: Settings;
  change: <S extends object>(tool: Tool<S>, change: Partial<S>) => void;
} {
  const [settings, setSettings] = useState(read);
  return {
    settings,
    change: (tool, change) => {
      const changed = { ...settings, [tool.name]: { ...settings[tool.name], ...change } };
      const kept = handTools.filter((one) => !one.forgets).map((one) => [one.name, changed[one.name]]);
      localStorage.setItem(key, JSON.stringify(Object.fromEntries(kept)));
      setSettings(changed);
    },
  };
}

function read(): Settings {
  let kept: Record<string, object | undefined> = {};
  try {
    kept = (JSON.parse(localStorage.getItem(key) ?? '{}') as Record<string, object> | null) ?? {};
  } catch {
    // What cannot be read is as if it had never been set.
  }
  return Object.fromEntries(
    handTools.map(({ name, first, forgets }) => [name, { ...first, ...(forgets ? {} : kept[name]) }]),
  );
}
