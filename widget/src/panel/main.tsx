import type { FileMention } from '@porch/core/conversation';
import { lampAt } from '@porch/core/lamp';
import { render } from 'preact';
import { useEffect, useRef, useState } from 'preact/hooks';
import { lampBody, lampGlass } from '../glyphs';
import { words } from '../wording/panel';
import { Composer } from './composer';
import { type Conversation, openConversation } from './conversation';
import { type Door, readDoor } from './door';
import { GuestBook } from './guest-book';
import type { Model } from './model';
import { Roll } from './slips';

const TYPING_SHOWN_MS = 6_000;

const lampWords = (model: Model, now: number): { state: string; title: string; more: string } => {
  const lamp = lampAt(model.lamp, now + model.offsetMs);
  if (lamp.state === 'lit') return { state: 'lit', title: words.lit, more: words.litMore };
  if (lamp.state === 'dark') return { state: 'dark', title: words.dark, more: words.darkMore };
  const time = new Date(lamp.until - model.offsetMs).toLocaleTimeString([], {
    hour: '2-digit',
    minute: '2-digit',
  });
  return { state: 'back-soon', title: words.backSoon(time), more: words.backSoonMore };
};

const useModel = (conversation: Conversation): Model => {
  const [model, setModel] = useState(conversation.now);
  useEffect(() => conversation.watch(setModel), [conversation]);
  return model;
};

/** Draws again when time alone changes what is shown. */
const useNow = (): number => {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1_000);
    return () => clearInterval(timer);
  }, []);
  return now;
};

const LargePicture = (props: {
  conversation: Conversation;
  file: FileMention;
  close: () => void;
}) => {
  const dialog = useRef<HTMLDialogElement>(null);
  const [source, setSource] = useState<string | null>(null);
  const [isMissing, setMissing] = useState(false);
  useEffect(() => {
    dialog.current?.showModal();
    void props.conversation.fetchFile(props.file.id, 'whole').then((url) => {
      setSource(url);
      setMissing(url === null);
    });
  }, [props.conversation, props.file.id]);
  return (
    <dialog ref={dialog} class="large" aria-label={props.file.name} onClose={props.close}>
      <button type="button" class="plain" onClick={() => dialog.current?.close()}>
        {words.closePicture}
      </button>
      {source && <img src={source} alt={props.file.name} />}
      {!source && <p>{isMissing ? words.missingPicture : words.loadingPicture}</p>}
    </dialog>
  );
};

const Panel = ({ conversation, door }: { conversation: Conversation; door: Door }) => {
  const model = useModel(conversation);
  const now = useNow();
  const [large, setLarge] = useState<FileMention | null>(null);
  const end = useRef<HTMLDivElement>(null);
  const lamp = lampWords(model, now);
  const isNote = lamp.state !== 'lit';
  const hasTalked = model.entries.length > 0;
  const said = model.entries.length + model.queue.length;
  const isTyping = model.typing !== null && now - model.typing.at < TYPING_SHOWN_MS;

  const newest = `${said} ${isTyping} ${hasTalked}`;
  useEffect(() => {
    if (newest) end.current?.scrollIntoView({ block: 'end' });
  }, [newest]);

  useEffect(() => {
    const close = (event: KeyboardEvent): void => {
      if (event.key === 'Escape' && !document.querySelector('dialog[open]')) conversation.close();
    };
    addEventListener('keydown', close);
    return () => removeEventListener('keydown', close);
  }, [conversation]);

  return (
    <div class="panel">
      <header>
        <svg class={lamp.state} viewBox="0 0 24 24" aria-hidden="true">
          <path class="glass" d={lampGlass} />
          <path d={lampBody} />
        </svg>
        <div>
          <h1 dir="auto">{door.business}</h1>
          <p role="status">{lamp.title}</p>
        </div>
        {conversation.isFramed && (
          <button type="button" class="plain close" onClick={conversation.close}>
            {words.close}
          </button>
        )}
      </header>
      <div class="scroll">
        <p class="sign">{lamp.more}</p>
        {said === 0 && <p class="empty">{isNote ? words.emptyNote : words.emptyLit}</p>}
        <Roll conversation={conversation} model={model} open={setLarge} />
        <p class="typing" role="status">
          {isTyping ? words.typing(model.typing?.name ?? '') : ''}
        </p>
        {hasTalked && (
          <GuestBook
            key={isNote ? 'note' : 'lit'}
            conversation={conversation}
            model={model}
            door={door.door}
            isNote={isNote}
          />
        )}
        <div ref={end} />
      </div>
      {model.isWelcome && !model.isConnected && (
        <p class="offline" role="status">
          {words.offline}
        </p>
      )}
      <Composer conversation={conversation} door={door.door} isNote={isNote} />
      {large && (
        <LargePicture conversation={conversation} file={large} close={() => setLarge(null)} />
      )}
    </div>
  );
};

const door = readDoor();
const root = document.getElementById('panel');
if (root) render(<Panel conversation={openConversation(door)} door={door} />, root);
