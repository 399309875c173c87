import type { ReactNode } from 'react';

interface UnfoldedProps {
  title: string;
  aside?: string;
  testId: string;
  /** The line that says what the tool does, where its name does not. */
  hint?: string;
  /** Wider than others, and on low screens two columns. */
  wide?: boolean;
  /** Wider than others. */
  roomy?: boolean;
  children?: ReactNode;
}

/** The settings of what is in the hand, beside the tray: one level deep. */
export function Unfolded({ title, aside, testId, hint, wide, roomy, children }: UnfoldedProps) {
  return (
    <section
      aria-label={title}
      data-testid={testId}
      className={`max-h-full overflow-y-auto rounded-lg border border-base-300 bg-base-100 p-4 shadow-sm ${wide ? 'w-[310px] lg:[@media(max-height:900px)]:w-[590px]' : roomy ? 'w-[310px]' : 'w-[230px]'}`}
    >
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="text-[16px]">{title}</h2>
        {aside && <span className="text-[13px] text-quiet">{aside}</span>}
      </div>
      {hint && <p className="mt-0.5 text-[13px] text-quiet">{hint}</p>}
      {children}
    </section>
  );
}
