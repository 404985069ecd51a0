import { bridgeWords } from './bridge/words';
import { mailWords } from './mail/words';
import { phoneWords } from './phone/words';
import { pigeonpostWords } from './pigeonpost/words';
import { textWords } from './text/words';
import { tintypeWords } from './tintype/words';
import { townfinderWords } from './townfinder/words';
import { waveletWords } from './wavelet/words';
import type { NetworkWording, NetworkWords } from './words';
import { xmppWords } from './xmpp/words';

const wordings: Readonly<Record<string, NetworkWording>> = {
  text: textWords,
  mail: mailWords,
  phone: phoneWords,
  pigeonpost: pigeonpostWords,
  wavelet: waveletWords,
  tintype: tintypeWords,
  townfinder: townfinderWords,
  xmpp: xmppWords,
  bridge: bridgeWords,
};

/** What an owner reads of a kind of network; null where this version has no words for it. */
export const networkWords = (kind: string): NetworkWords | null => wordings[kind]?.() ?? null;
