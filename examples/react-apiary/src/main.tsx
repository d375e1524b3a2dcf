import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import '../../shared/styles.css';
import { YardShell } from './YardShell';

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <YardShell />
  </StrictMode>,
);
