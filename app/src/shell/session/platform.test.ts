import { deviceNameOf, platformOf } from './platform';

const agents = {
  iphone:
    'Mozilla/5.0 (iPhone; CPU iPhone OS 18_5 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.5 Mobile/15E148 Safari/604.1',
  mac: 'Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.5 Safari/605.1.15',
  android:
    'Mozilla/5.0 (Linux; Android 10; K) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Mobile Safari/537.36',
  windows:
    'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36 Edg/140.0.0.0',
  linux: 'Mozilla/5.0 (X11; Linux x86_64; rv:142.0) Gecko/20100101 Firefox/142.0',
};

describe('what this device is', () => {
  it.each([
    ['iphone', 'iphone', 5, 'iPhone, Safari'],
    ['mac', 'iphone', 5, 'iPad, Safari'],
    ['mac', 'desktop-dock', 0, 'Mac, Safari'],
    ['android', 'android', 5, 'Android, Chrome'],
    ['windows', 'desktop-installs', 0, 'Windows, Edge'],
    ['linux', 'desktop-none', 0, 'Linux, Firefox'],
  ] as const)('%s is %s with %i fingers, called %s', (which, platform, touches, name) => {
    const signs = { agent: agents[which], touches };
    expect(platformOf(signs)).toBe(platform);
    expect(deviceNameOf(signs)).toBe(name);
  });

  it('is a desktop that installs nothing where nothing is known', () => {
    expect(platformOf({ agent: '', touches: 0 })).toBe('desktop-none');
    expect(deviceNameOf({ agent: '', touches: 0 })).toBe('');
  });
});
