import { cleanMessage, MESSAGE_LONGEST } from '@porch/core/text';
import { Refused } from '../refused';
import { type FileRecord, type Store, toMention } from '../store';

/** The text and the files of a message, checked; refuses what is empty, too long or not the sender's. */
export const takeWords = (
  store: Store,
  typed: {
    text: string;
    fileIds: string[];
    missing?: readonly string[];
    coming?: readonly string[];
    call?: object;
    callBack?: object;
    shelf?: readonly string[];
  },
  threadId: string,
  isTheirs: (file: FileRecord) => boolean,
) => {
  const text = cleanMessage(typed.text);
  if (text.length > MESSAGE_LONGEST) throw new Refused('text-too-long', { limit: MESSAGE_LONGEST });
  const hasFiles = [typed.fileIds, typed.missing, typed.coming].some((some) => some?.length);
  const isNothing = !hasFiles && !typed.call && !typed.callBack;
  if (!text && isNothing && !typed.shelf?.length) throw new Refused('text-empty');
  const files = typed.fileIds.map((id) => {
    const file = store.files.byId(id);
    const isFree = file?.inThread === null || file?.inThread === threadId;
    if (!file || !isFree || !isTheirs(file)) throw new Refused('file-unknown');
    store.files.attach(id, threadId);
    return toMention(file);
  });
  return { text, files };
};
