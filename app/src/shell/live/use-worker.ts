import { router } from 'expo-router';
import { useEffect } from 'react';

/** Goes where a tap on an alert leads, in the window that is open. Mount once. */
export const useWorker = (): void => {
  useEffect(() => {
    const { serviceWorker } = navigator;
    if (!serviceWorker) return;
    const hear = ({ data }: MessageEvent<{ say?: string; path?: string } | null>): void => {
      if (data?.say === 'open' && data.path) router.navigate(data.path);
    };
    serviceWorker.addEventListener('message', hear);
    return () => serviceWorker.removeEventListener('message', hear);
  }, []);
};
