// A style sheet that a script puts on the page itself: its text, made small.
import { readFile } from 'node:fs/promises';
import { transform } from 'esbuild';

export const cssAsText = {
  name: 'css-as-text',
  setup: ({ onLoad }) => {
    onLoad({ filter: /loader[\\/][^\\/]*\.css$/ }, async ({ path }) => {
      const { code } = await transform(await readFile(path, 'utf8'), {
        loader: 'css',
        minify: true,
        legalComments: 'none',
      });
      return { contents: code.trim(), loader: 'text' };
    });
  },
};
