/** What kind of device and browser this is, as far as installing and ringing differ by it. */
export type Platform = 'iphone' | 'android' | 'desktop-installs' | 'desktop-dock' | 'desktop-none';

interface Signs {
  agent: string;
  /** How many fingers the screen can tell apart: a tablet says of itself that it is a desktop. */
  touches: number;
}

/** By what a browser says of itself; a wrong guess shows the steps of another device, and nothing worse. */
export const platformOf = ({ agent, touches }: Signs): Platform => {
  if (/iPhone|iPad|iPod/.test(agent) || (/Macintosh/.test(agent) && touches > 1)) return 'iphone';
  if (/Android/.test(agent)) return 'android';
  if (/Chrome\/|Edg\//.test(agent)) return 'desktop-installs';
  return /Macintosh/.test(agent) && /Safari\//.test(agent) && !/Firefox\//.test(agent)
    ? 'desktop-dock'
    : 'desktop-none';
};

const browsers: readonly (readonly [RegExp, string])[] = [
  [/Edg\//, 'Edge'],
  [/Firefox\/|FxiOS\//, 'Firefox'],
  [/Chrome\/|CriOS\//, 'Chrome'],
  [/Safari\//, 'Safari'],
];

const machines: readonly (readonly [RegExp, string])[] = [
  [/iPhone/, 'iPhone'],
  [/iPad/, 'iPad'],
  [/Android/, 'Android'],
  [/Macintosh/, 'Mac'],
  [/Windows/, 'Windows'],
  [/Linux/, 'Linux'],
];

const firstOf = (names: typeof browsers, agent: string): string =>
  names.find(([sign]) => sign.test(agent))?.[1] ?? '';

/** What a device is called in a list: "Android, Chrome". '' where nothing is known of it. */
export const deviceNameOf = ({ agent, touches }: Signs): string => {
  const machine = /Macintosh/.test(agent) && touches > 1 ? 'iPad' : firstOf(machines, agent);
  return [machine, firstOf(browsers, agent)].filter(Boolean).join(', ');
};

const signs = (): Signs => ({
  agent: navigator.userAgent ?? '',
  touches: navigator.maxTouchPoints ?? 0,
});

export const platform = (): Platform => platformOf(signs());
export const deviceName = (): string => deviceNameOf(signs());
