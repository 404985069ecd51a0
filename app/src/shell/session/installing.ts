import { create } from 'zustand';

/** What a browser gives that would install the app now (it is no standard, and not everywhere). */
interface InstallPrompt extends Event {
  prompt(): Promise<{ outcome: 'accepted' | 'dismissed' }>;
}

interface Installing {
  /** Whether the app runs from the home screen or a window of its own. */
  isInstalled: boolean;
  prompt: InstallPrompt | null;
}

const isStandalone = (): boolean =>
  (typeof matchMedia === 'function' &&
    matchMedia('(display-mode: standalone), (display-mode: minimal-ui)').matches) ||
  (typeof navigator !== 'undefined' && 'standalone' in navigator && navigator.standalone === true);

export const useInstalling = create<Installing>(() => ({
  isInstalled: isStandalone(),
  prompt: null,
}));

// A browser offers it once, soon after the page has come: whoever listens later has missed it.
if (typeof addEventListener === 'function') {
  addEventListener('beforeinstallprompt', (event) => {
    event.preventDefault();
    useInstalling.setState({ prompt: event as InstallPrompt });
  });
  addEventListener('appinstalled', () =>
    useInstalling.setState({ isInstalled: true, prompt: null }),
  );
}

/** Lets the browser ask whether to install; false where it was not wanted. It asks once. */
export const install = async (): Promise<boolean> => {
  const { prompt } = useInstalling.getState();
  if (!prompt) return false;
  useInstalling.setState({ prompt: null });
  return (await prompt.prompt()).outcome === 'accepted';
};
