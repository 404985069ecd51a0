import { type Hook, handAtOnce } from './webhooks';

// In a process of its own: whoever measures meanwhile is not held up by what is handed over.
process.once('message', async ({ port, hooks }: { port: number; hooks: Hook[] }) => {
  await handAtOnce(port, hooks);
  process.send?.('done');
});
