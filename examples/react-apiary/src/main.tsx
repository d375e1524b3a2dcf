import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { HashRouter } from 'react-router';
import '../../shared/styles.css';
import { YardShell } from './YardShell';

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <HashRouter>
      <YardShell />
    </HashRouter>
  </StrictMode>,
);
