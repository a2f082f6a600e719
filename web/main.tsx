// main.tsx — fonts, styles, router.
import './app/validation.ts';
import '@fontsource/fraunces/400.css';
import '@fontsource-variable/source-sans-3';
import '@fontsource/source-code-pro/400.css';
import '@fontsource/source-code-pro/600.css';
import './styles.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router/dom';
import { router } from './app/router.tsx';
import { keepFocus } from './controls/keep-focus.ts';
import { applyTheme } from './store/theme.ts';

// The worker takes its time to start; the list needs none.
if (location.pathname.startsWith('/projects/'))
  void import('./worker/client.ts').then((module) => module.startGeometry());
applyTheme();
keepFocus();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <RouterProvider router={router} />
  </StrictMode>,
);
