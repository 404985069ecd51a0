import type { OtherWays as Ways } from '@porch/contract/visitor';
import { useState } from 'preact/hooks';
import type { Conversation } from './conversation';
import { useSay, useView } from './view';

/** Other doors by which one may rather write; the conversation goes on there as the same one. */
export const OtherWays = ({ conversation }: { conversation: Conversation }) => {
  const { ways } = useView().business;
  const say = useSay();
  const [chosen, choose] = useState<string | null>(null);
  const [out, setOut] = useState<Ways | null>(null);
  if (ways.length === 0) return null;
  const press = async (name: string): Promise<void> => {
    choose(name);
    setOut(await conversation.otherWays());
  };
  const way = out?.ways.find(({ name }) => name === chosen);
  return (
    <div class="ways">
      {ways.map((name) =>
        name === chosen && way ? (
          <p key={name} role="status" ref={(shown) => shown?.scrollIntoView({ block: 'nearest' })}>
            <a href={way.link} target="_blank" rel="noopener noreferrer">
              {say('wayGo', { way: name })}
            </a>
            {out?.code ? <span>{say('wayCode', { code: out.code })}</span> : null}
          </p>
        ) : (
          <button key={name} type="button" class="plain" onClick={() => void press(name)}>
            {say('wayTo', { way: name })}
          </button>
        ),
      )}
    </div>
  );
};
