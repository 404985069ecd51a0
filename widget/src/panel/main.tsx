import { render } from 'preact';
import { useEffect, useState } from 'preact/hooks';
import { type Conversation, openConversation } from './conversation';
import { readDoor } from './door';
import { Panel } from './panel';
import { View, wear } from './view';

/** The panel as it is dressed; a draft's dress comes from the page around it, and may change. */
const Dressed = ({ conversation, door }: { conversation: Conversation; door: string }) => {
  const [view, setView] = useState(conversation.view);
  useEffect(() => {
    const look = (): void => setView(conversation.view());
    // A draft may have come before this was listening.
    look();
    return conversation.watch(look);
  }, [conversation]);
  if (!view) return null;
  wear(view);
  return (
    <View.Provider value={view}>
      <Panel conversation={conversation} door={door} />
    </View.Provider>
  );
};

const door = readDoor();
const root = document.getElementById('panel');
if (root) {
  render(<Dressed conversation={openConversation(door)} door={door.door} />, root);
}
