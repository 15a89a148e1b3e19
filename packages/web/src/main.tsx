import '@fontsource-variable/archivo/wdth.css';
import '@fontsource-variable/public-sans/index.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './app/App.js';
import { watchOutbox } from './data/outbox/outbox.js';

watchOutbox();
if (import.meta.env.PROD && 'serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js');

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
