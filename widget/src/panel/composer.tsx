import { withPut } from '@porch/client/emoji';
import { type HeldFile, withChosen } from '@porch/client/files';
import { keep, kept } from '@porch/client/keeping';
import { FILE_LIMITS } from '@porch/core/files';
import { MESSAGE_LONGEST, TEXT_HELD_MOST } from '@porch/core/text';
import { type MutableRef, useEffect, useRef, useState } from 'preact/hooks';
import type { Conversation } from './conversation';
import { useLate } from './use-late';
import { sayRefusal, useSay } from './view';

/** Where the visitor writes. What is typed is kept on every stroke: a reload loses no word. */
export const Composer = (props: {
  conversation: Conversation;
  door: string;
  /** Which texts of the porch light's state the field and the button have. */
  state: 'lit' | 'soon' | 'dark';
  /** The visitor must agree first; what is typed meanwhile is nowhere but on the screen. */
  isConsentMissing: boolean;
  /** By which others put words into the field. */
  write: MutableRef<((text: string) => void) | null>;
}) => {
  const say = useSay();
  const draftKey = `porch:draft:${props.door}`;
  const [text, setText] = useState(() => kept(draftKey) ?? '');
  const [files, setFiles] = useState<HeldFile[]>([]);
  const [problem, setProblem] = useState('');
  const [isEmojiOpen, setEmojiOpen] = useState(false);
  const Emoji = useLate(isEmojiOpen)?.EmojiFrame;
  const field = useRef<HTMLTextAreaElement>(null);
  const chooser = useRef<HTMLInputElement>(null);
  const over = text.trim().length - MESSAGE_LONGEST;
  const canSend = over <= 0 && (text.trim() !== '' || files.length > 0);

  useEffect(() => {
    const area = field.current;
    if (!area) return;
    area.style.height = 'auto';
    area.style.height = `${Math.min(area.scrollHeight + 2, 160)}px`;
  }, [text]);

  useEffect(() => {
    // With a mouse the panel is opened to write; on a phone the keyboard would hide what was said.
    const focus = (): void => {
      if (!matchMedia('(pointer: fine)').matches) return;
      if (props.conversation.takeFocus()) field.current?.focus();
    };
    // It may have been opened before there was a field to write in.
    focus();
    addEventListener('porch:shown', focus);
    return () => removeEventListener('porch:shown', focus);
  }, [props.conversation]);

  const change = (typed: string): void => {
    if (typed.length > TEXT_HELD_MOST) {
      if (field.current) field.current.value = text;
      setProblem(say('tooMuch', { length: typed.length, limit: MESSAGE_LONGEST }));
      return;
    }
    setText(typed);
    keep(draftKey, typed);
    setProblem('');
    if (typed) props.conversation.typing();
  };

  props.write.current = (words) => {
    change(text.trim() ? `${text.trimEnd()} ${words}` : words);
    field.current?.focus();
  };

  const addFiles = (chosen: Iterable<File>): void => {
    const { files: held, isTooLarge } = withChosen(files, chosen);
    const limit = FILE_LIMITS.largestBytes;
    setProblem(isTooLarge ? sayRefusal(say, { code: 'too-large', limit }) : '');
    setFiles(held);
  };

  const send = (): void => {
    if (props.isConsentMissing) {
      setProblem(say('consentFirst'));
      document.getElementById('consent')?.focus();
      return;
    }
    if (!canSend) {
      if (over <= 0) setProblem(say('refused.empty'));
      return;
    }
    props.conversation.say(text, files);
    setFiles([]);
    setText('');
    keep(draftKey, '');
    setProblem('');
    field.current?.focus();
  };

  /** At the cursor; whoever picks the next one stays where they do. */
  const putSign = (sign: string): void => {
    const area = field.current;
    if (!area) return;
    const { selectionStart: from, selectionEnd: to } = area;
    const put = withPut(area.value, { from, to }, sign);
    area.value = put.text;
    area.setSelectionRange(put.cursor, put.cursor);
    change(put.text);
  };

  const label = say(`field.${props.state}`);
  return (
    <form
      class="composer"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      {files.length > 0 && (
        <ul class="held">
          {files.map((file) => (
            <li key={file.id}>
              <bdi>{file.name}</bdi>
              <button
                type="button"
                aria-label={say('dropFile', { name: file.name })}
                onClick={() => setFiles(files.filter((one) => one !== file))}
              >
                ×
              </button>
            </li>
          ))}
        </ul>
      )}
      {(problem || over > 0) && (
        <p class="problem" role="alert">
          {problem || say('tooLong', { over })}
        </p>
      )}
      {Emoji && (
        <Emoji
          door={props.door}
          pick={putSign}
          missing={() => {
            setEmojiOpen(false);
            setProblem(say('emojiMissing'));
          }}
          close={() => {
            setEmojiOpen(false);
            field.current?.focus();
          }}
        />
      )}
      <div class="write">
        <textarea
          ref={field}
          rows={1}
          // An empty field is written from the side from which its language is.
          dir={text ? 'auto' : undefined}
          value={text}
          aria-label={label}
          placeholder={label}
          onInput={(event) => change(event.currentTarget.value)}
          onPaste={(event) => {
            const pasted = event.clipboardData?.files;
            if (pasted?.length) addFiles(pasted);
          }}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || event.shiftKey || event.isComposing) return;
            event.preventDefault();
            send();
          }}
        />
        <button
          type="button"
          class="add"
          aria-label={say('addFile')}
          onClick={() => chooser.current?.click()}
        >
          <svg viewBox="0 0 24 24" aria-hidden="true">
            <path d="M4 5h16v14H4zM4 16l5-5 4 4 2.500-2.500L20 17M15.500 9.500h.01" />
          </svg>
        </button>
        <input
          ref={chooser}
          type="file"
          multiple
          hidden
          onChange={(event) => {
            addFiles(event.currentTarget.files ?? []);
            event.currentTarget.value = '';
          }}
        />
        <button
          type="button"
          class="add smile"
          aria-label={say('emoji')}
          aria-expanded={isEmojiOpen}
          onClick={() => {
            if (isEmojiOpen || props.conversation.now().isConnected) setEmojiOpen(!isEmojiOpen);
            else setProblem(say('emojiMissing'));
          }}
        >
          <svg viewBox="0 0 24 24" aria-hidden="true">
            <path d="M12 3a9 9 0 1 0 0 18a9 9 0 1 0 0-18M8 14.500c1 1.500 2.500 2 4 2s3-.5 4-2M9 9.500h.01M15 9.500h.01" />
          </svg>
        </button>
        <button type="submit" class="send" aria-disabled={!canSend}>
          {say(`send.${props.state}`)}
        </button>
      </div>
    </form>
  );
};
