import '@fontsource-variable/sofia-sans-extra-condensed';
import '@fontsource-variable/atkinson-hyperlegible-next';
import './theme/base.css';
import './theme/read.css';
import './theme/plan.css';
import './theme/wear.css';
import './theme/prove.css';
import './theme/handover.css';
import './theme/memory.css';
import './theme/jig.css';
import './theme/door.css';
import './theme/phone.css';
import './theme/print.css';
import './theme/wide.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createRoot } from 'react-dom/client';
import { registerSW } from 'virtual:pwa-register';
import { App } from './shell/App';
import { SettingsProvider } from './ui/settings';

const queries = new QueryClient({
  defaultOptions: {
    // A tablet that thinks it is offline still asks: what it waits for is told, not held back.
    queries: { retry: 1, refetchOnWindowFocus: true, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
});
// Where the browser allows it (https, or this machine), the pages start without the server.
registerSW({ immediate: true });
const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <QueryClientProvider client={queries}>
      <SettingsProvider>
        <App />
      </SettingsProvider>
    </QueryClientProvider>,
  );
}
