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

config.resolver.resolveRequest = (context, name, platform) => {
  const standIn = platform === 'web' ? standIns[name] : undefined;
  if (standIn) return { type: 'sourceFile', filePath: standIn };
  return (resolveRequest ?? context.resolveRequest)(context, name, platform);
};

module.exports = config;
