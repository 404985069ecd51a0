import type { HeldFile } from '@porch/client/files';
import type { CallBack } from '@porch/core/conversation';
import type { Parcel } from '@porch/core/send-queue';

export type Load =
  | {
      do: 'say';
      text: string;
      files: HeldFile[];
      page: { url: string; title: string } | null;
      callBack?: CallBack;
      /** With what they were greeted before they wrote. */
      greeted?: string;
    }
  /** A card of what is asked often; its question shows until it has arrived. */
  | {
      do: 'tap';
      card: string;
      question: string;
      page: { url: string; title: string } | null;
      greeted?: string;
    }
  | ({ do: 'details' } & Given);

/** What a visitor says of themselves; `own` are answers to the door's own questions, by id. */
export interface Given {
  name?: string;
  email?: string;
  phone?: string;
  own?: Record<string, string>;
  /** Who is signed in on the website, as that has signed it. */
  signed?: string;
  signature?: string;
}

export type PanelParcel = Parcel<Load>;
