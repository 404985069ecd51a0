import type { Conversation } from './conversation';
import { useSay, useView } from './view';

/** What must be agreed to before anything of the visitor is kept. */
export const Consent = ({ conversation }: { conversation: Conversation }) => {
  const say = useSay();
  const { consent } = useView();
  return (
    <div class="consent">
      <label class="tick">
        <input
          id="consent"
          type="checkbox"
          onChange={(event) => event.currentTarget.checked && conversation.agree()}
        />
        <span dir="auto">{say('consent')}</span>
      </label>
      {consent?.link && (
        <a href={consent.link} target="_blank" rel="noopener noreferrer">
          {say('privacy')}
        </a>
      )}
    </div>
  );
};
