import type { ReactNode } from 'react';

/** A part of a screen of settings: what it is about on the left, what can be done on the right. */
export function Part({ title, about, children }: { title: string; about: string; children: ReactNode }) {
  return (
    <section
      className="grid grid-cols-[250px_1fr] gap-x-10 gap-y-3 border-b border-base-300 py-6 last:border-0 max-md:grid-cols-1"
      aria-label={title}
    >
      <div>
        <h2 className="text-[19px]">{title}</h2>
        <p className="mt-1 text-[13px] text-quiet">{about}</p>
      </div>
      <div className="max-w-[440px]">{children}</div>
    </section>
  );
}
