import { Refused } from '../refused';
import type { Store } from '../store';

/** Pictures that go with something stored are brought along by the team, or stood there before. */
export const refuseStrangePictures = (
  store: Pick<Store, 'files'>,
  fileIds: readonly string[],
  stoodThere: (fileId: string) => boolean,
  field: string,
): void => {
  for (const id of fileIds) {
    const file = store.files.byId(id);
    const isOurs = file?.fromMember !== null && file?.inThread === null;
    const isPicture = file?.type.startsWith('image/');
    if (!file || !isPicture || !(isOurs || stoodThere(id))) {
      throw new Refused('file-unknown', { field });
    }
  }
};
