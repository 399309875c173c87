import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { Component, type ReactNode } from 'react';
import { keptSession } from '../server/session';
import { reportFault } from '../sync/faults';
import { saveRescueFile } from '../sync/rescue';

interface ScreenBoundaryProps {
  /** Changes with the screen: another one begins afresh. */
  screen: string;
  children: ReactNode;
}

/** Stands in for a screen that broke: says what happened and that nothing was lost, and offers the ways on. The rail and the other screens go on. */
export class ScreenBoundary extends Component<ScreenBoundaryProps, { problem: Error | undefined; screen: string }> {
  override state = { problem: undefined as Error | undefined, screen: this.props.screen };

  static getDerivedStateFromError(problem: unknown) {
    return { problem: problem instanceof Error ? problem : new Error(String(problem)) };
  }

  static getDerivedStateFromProps(props: ScreenBoundaryProps, state: { screen: string }) {
    return props.screen === state.screen ? null : { screen: props.screen, problem: undefined };
  }

  override componentDidCatch(problem: unknown): void {
    reportFault('A screen broke.', problem, location.pathname);
  }

  override render(): ReactNode {
    const { problem } = this.state;
    return problem ? <Broken problem={problem} /> : this.props.children;
  }
}

function Broken({ problem }: { problem: Error }) {
  const person = keptSession()?.person.id;
  return (
    <div role="alert" className="grid h-full place-items-center overflow-y-auto p-6" data-testid="broken-screen">
      <div className="max-w-[520px]">
        <h1 className="mb-2 text-[28px] leading-tight">{t`This screen stopped working`}</h1>
        <p className="mb-2">{t`Nothing that you wrote is lost: it was kept before it was shown. The other screens go on, and this one usually does after a reload. Whoever looks after the server has been told.`}</p>
        <p className="mb-5 text-[13px] text-quiet">{t`It said: ${problem.message.split('\n')[0]}`}</p>
        <div className="flex flex-wrap gap-3">
          <Button look="primary" data-testid="reload" onClick={() => location.reload()}>{t`Reload`}</Button>
          {person && (
            <Button
              data-testid="save-rescue"
              onClick={() => void saveRescueFile(person)}
            >{t`Save what is here as a file`}</Button>
          )}
        </div>
      </div>
    </div>
  );
}
