const { join } = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);
const { resolveRequest } = config.resolver;

// A browser draws by itself what react-native-svg draws on a telephone: a small stand-in takes its place, and 13 kB
// less are in the first load.
const drawnByBrowser = join(__dirname, 'src/kit/drawn/svg-on-web.ts');

// What is drawn within buttons and lists may not stand in elements of that name.
const boxes = join(__dirname, 'src/kit/boxes-on-web.ts');
const standIns = {
  'react-native-svg': drawnByBrowser,
  './propsToAccessibilityComponent': boxes,
};

// What the app uses of its router, instead of all that there is.
const router = join(__dirname, 'src/kit/router-on-web.ts');
const unused = join(__dirname, 'src/kit/unused-of-router.ts');
const forRouter = {
  'react-native-web/dist/index': join(__dirname, 'src/kit/drawn-by-router.ts'),
  '../fork/native-stack/createNativeStackNavigator': unused,
  './stack-utils': unused,
  '../native-tabs/NativeTabTrigger': unused,
  './head': unused,
  './screensFeatureFlags': unused,
  './views/RootUnmatched': unused,
  './views/Sitemap': unused,
  './views/Unmatched': unused,
  './Toast': unused,
};

const ownSource = join(__dirname, 'src');
const sourceOfRouter = join('expo-router', 'build');

const standInFor = (name, asking) => {
  if (name === 'expo-router' && asking.startsWith(ownSource)) return router;
  return standIns[name] ?? (asking.includes(sourceOfRouter) ? forRouter[name] : undefined);
};

config.resolver.resolveRequest = (context, name, platform) => {
  const standIn = platform === 'web' ? standInFor(name, context.originModulePath) : undefined;
  if (standIn) return { type: 'sourceFile', filePath: standIn };
  return (resolveRequest ?? context.resolveRequest)(context, name, platform);
};

module.exports = config;
