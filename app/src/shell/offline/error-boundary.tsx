import { useState } from 'react';
import { Failed } from '../../kit/states';
import { openAnew } from './offline';

/**
 * Stands where a screen failed to draw: nothing is lost, and it can be tried again. Every place has one of
 * its own, so that the rest of the house goes on.
 */
export const ErrorBoundary = ({ retry }: { retry: () => Promise<void> }) => (
  <Failed retry={() => void retry()} />
);

/** Stands for the whole house where a screen's code did not come: only opening it anew brings that. */
export const WholeErrorBoundary = () => {
  // The address is put back to a first one once no screen is shown; a link's secret stands behind its #.
  const [address] = useState(() => location.pathname + location.search + location.hash);
  return <Failed retry={() => void openAnew(address)} />;
};
