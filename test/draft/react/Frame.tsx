import type { ReactNode } from 'react';

export const Frame = ({ title, children }: { title: string; children: ReactNode }) => (
  <section aria-label={title}>
    <h2>{title}</h2>
    {children}
  </section>
);
