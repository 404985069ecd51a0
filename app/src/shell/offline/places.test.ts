import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const root = join(__dirname, '../../app');
const places = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter((file) =>
  file.endsWith('.tsx'),
);

describe('every place of the app', () => {
  it('has an error boundary of its own, so that the rest of the house goes on', () => {
    expect(places.length).toBeGreaterThan(15);
    const without = places.filter(
      (file) =>
        !/export \{ (WholeErrorBoundary as )?ErrorBoundary \} from/.test(
          readFileSync(join(root, file), 'utf8'),
        ),
    );
    expect(without).toEqual([]);
  });
});
