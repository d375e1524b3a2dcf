import { lazy, Suspense } from 'react';

const Frame = lazy(() => import('./Frame').then((module) => ({ default: module.Frame })));

export const LatePanel = () => (
  <Suspense fallback={<p role="status">Fetching the panel</p>}>
    <Frame title="Notes">Keep the entrance clear</Frame>
  </Suspense>
);
