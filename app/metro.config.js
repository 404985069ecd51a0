const { join } = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);
const { resolveRequest } = config.resolver;

// A browser draws by itself what react-native-svg draws on a telephone: a small stand-in takes its place, and 13 kB
// less are in the first load.
const drawnByBrowser = join(__dirname, 'src/kit/drawn/svg-on-web.ts');

config.resolver.resolveRequest = (context, name, platform) =>
  platform === 'web' && name === 'react-native-svg'
    ? { type: 'sourceFile', filePath: drawnByBrowser }
    : (resolveRequest ?? context.resolveRequest)(context, name, platform);

module.exports = config;
