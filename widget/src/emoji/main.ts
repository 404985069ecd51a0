import type { EmojiPageData, FromEmojiPage, ToEmojiPage } from '@porch/contract/emoji';
import Picker from 'emoji-picker-element/picker';

type I18n = NonNullable<ConstructorParameters<typeof Picker>[0]>['i18n'];

/** What the picker says, by language; whoever reads another one reads English. */
const wordings: Readonly<Record<string, () => Promise<{ default: I18n }>>> = {
  de: () => import('emoji-picker-element/i18n/de'),
  en: () => import('emoji-picker-element/i18n/en'),
  es: () => import('emoji-picker-element/i18n/es'),
  fr: () => import('emoji-picker-element/i18n/fr'),
  it: () => import('emoji-picker-element/i18n/it'),
  nl: () => import('emoji-picker-element/i18n/nl'),
  pl: () => import('emoji-picker-element/i18n/pl'),
  pt: () => import('emoji-picker-element/i18n/pt_PT'),
};

/** The page around it is of the same house: nobody else is told what somebody picks. */
const tell = (message: FromEmojiPage): void => parent.postMessage(message, location.origin);

const hear = (event: MessageEvent): void => {
  if (event.origin !== location.origin || event.source !== parent) return;
  const message = event.data as ToEmojiPage;
  if (message?.porch !== 'emoji-colours') return;
  const { style } = document.documentElement;
  for (const [name, value] of Object.entries(message.colours))
    style.setProperty(`--${name}`, value);
};

const start = async (): Promise<void> => {
  const data = JSON.parse(document.getElementById('emoji')?.textContent ?? '') as EmojiPageData;
  const wording = wordings[data.language] ?? wordings.en;
  const i18n = (await wording?.())?.default;
  const picker = new Picker({ locale: data.language, dataSource: data.source, i18n });
  picker.addEventListener('emoji-click', ({ detail: { unicode } }) => {
    if (unicode) tell({ porch: 'emoji', emoji: unicode });
  });
  addEventListener('message', hear);
  addEventListener('keydown', ({ key }) => {
    if (key === 'Escape') tell({ porch: 'emoji-close' });
  });
  document.querySelector('main')?.append(picker);
  tell({ porch: 'emoji-ready' });
};

void start();
