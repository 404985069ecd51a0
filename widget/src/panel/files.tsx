import type { FileMention } from '@porch/core/conversation';
import { sizeText } from '@porch/core/files';
import type { Conversation } from './conversation';
import { Picture } from './said';
import { useSay } from './view';

const download = async (conversation: Conversation, file: FileMention): Promise<void> => {
  const url = await conversation.fetchFile(file.id, 'whole');
  if (!url) return;
  const link = document.createElement('a');
  link.href = url;
  link.download = file.name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
};

/** Files of what was said: pictures as they are, anything else to be downloaded. */
export const Files = (props: {
  conversation: Conversation;
  files: readonly FileMention[];
  open: (file: FileMention) => void;
}) => {
  const say = useSay();
  return (
    <>
      {props.files.map((file) =>
        file.picture ? (
          <Picture key={file.id} {...props} file={file} />
        ) : (
          <button
            key={file.id}
            type="button"
            class="file"
            aria-label={say('download', { name: file.name, size: sizeText(file.sizeBytes) })}
            onClick={() => void download(props.conversation, file)}
          >
            <bdi>{file.name}</bdi> <span>{sizeText(file.sizeBytes)}</span>
          </button>
        ),
      )}
    </>
  );
};
