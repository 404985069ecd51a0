// Whether each workspace names the packages that it uses, and uses those that it names: one that lives by what others
// happen to bring is gone with them.
import { readdirSync, readFileSync } from 'node:fs';
import { isBuiltin } from 'node:module';
import { join } from 'node:path';
import ts from 'typescript';

const rootPackage = JSON.parse(readFileSync('package.json', 'utf8'));
const shared = new Set(Object.keys(rootPackage.devDependencies));

/** Named, and imported nowhere: by whom they are asked for instead. */
const askedForOtherwise = {
  // The platform looks for them by itself.
  app: [
    '@expo/metro-runtime',
    'expo-constants',
    'expo-linking',
    'react-dom',
    'react-native-safe-area-context',
    'react-native-screens',
  ],
  // Looked for by the name of the language.
  server: ['de', 'en', 'en-gb', 'es', 'fr', 'it', 'nl', 'pl', 'pt'].map(
    (language) => `dictionary-${language}`,
  ),
};
/** Taken by the builds as files. */
const takenByBuilds = /^(@fontsource-variable\/|emoji-picker-element-data$)/;

const skipped = new Set(['node_modules', 'dist', '.expo', '.running', 'bare-app', 'public']);
const filesBelow = (folder) =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return skipped.has(entry.name) ? [] : filesBelow(path);
    return /\.(c|m)?[jt]sx?$/.test(entry.name) ? [path] : [];
  });

const packageOf = (name) =>
  name
    .split('/')
    .slice(0, name.startsWith('@') ? 2 : 1)
    .join('/');

/** Nothing of these ships: what they share with other tools stands in the root. */
const isTool = (path) =>
  /^(bench|e2e)\//.test(path) || /\.test\.tsx?$|(^|\/)test-kit\/|\.config\.c?js$/.test(path);

const problems = [];
for (const workspace of rootPackage.workspaces) {
  const own = JSON.parse(readFileSync(join(workspace, 'package.json'), 'utf8'));
  const named = new Set(Object.keys({ ...own.dependencies, ...own.devDependencies }));
  const used = new Set();
  for (const path of filesBelow(workspace)) {
    const { importedFiles } = ts.preProcessFile(readFileSync(path, 'utf8'), true, true);
    for (const { fileName } of importedFiles) {
      if (/^[./]/.test(fileName) || isBuiltin(fileName)) continue;
      const name = packageOf(fileName);
      used.add(name);
      const isNamed = named.has(name) || name === own.name || (isTool(path) && shared.has(name));
      if (!isNamed) problems.push(`${path} uses ${name}, which ${workspace} does not name`);
    }
  }
  for (const name of named) {
    const isAskedFor = used.has(name) || askedForOtherwise[workspace]?.includes(name);
    if (!isAskedFor && !takenByBuilds.test(name)) {
      problems.push(`${workspace} names ${name} and does not use it`);
    }
  }
}
for (const problem of new Set(problems)) process.stderr.write(`${problem}\n`);
process.exit(problems.length > 0 ? 1 : 0);
