import { EMOJI_WAIT_MS, hearEmoji, withPut } from '.';

const colours = {
  paper: '#fff',
  linen: '#eee',
  seam: '#ddd',
  edge: '#999',
  ink: '#000',
  slate: '#555',
};

describe('the picker of emoji in its frame', () => {
  const inside = { postMessage: jest.fn() };
  const frame = { contentWindow: inside } as unknown as HTMLIFrameElement;
  const pick = jest.fn();
  const close = jest.fn();
  const missing = jest.fn();
  let stop: () => void;
  const say = (data: unknown, from: object = {}): void => {
    const event = new Event('message');
    Object.assign(event, { data, origin: location.origin, source: inside, ...from });
    dispatchEvent(event);
  };
  beforeEach(() => {
    jest.clearAllMocks();
    jest.useFakeTimers();
    stop = hearEmoji(frame, colours, { pick, close, missing });
  });
  afterEach(() => {
    stop();
    jest.useRealTimers();
  });

  it('is dressed as the page around it once it is there', () => {
    say({ porch: 'emoji-ready' });
    expect(inside.postMessage).toHaveBeenCalledWith(
      { porch: 'emoji-colours', colours },
      location.origin,
    );
  });

  it('is missing where it does not come in time, and only there', () => {
    jest.advanceTimersByTime(EMOJI_WAIT_MS);
    expect(missing).toHaveBeenCalledTimes(1);
    stop();
    stop = hearEmoji(frame, colours, { pick, close, missing });
    say({ porch: 'emoji-ready' });
    jest.advanceTimersByTime(EMOJI_WAIT_MS);
    stop();
    stop = hearEmoji(frame, colours, { pick, close, missing });
    stop();
    jest.advanceTimersByTime(EMOJI_WAIT_MS);
    expect(missing).toHaveBeenCalledTimes(1);
  });

  it('hands over what is picked, and says when somebody is done', () => {
    say({ porch: 'emoji', emoji: '🌱' });
    expect(pick).toHaveBeenCalledWith('🌱');
    say({ porch: 'emoji-close' });
    expect(close).toHaveBeenCalledTimes(1);
  });

  it.each([
    ['another origin', { porch: 'emoji', emoji: 'x' }, { origin: 'https://evil.example' }],
    ['another frame', { porch: 'emoji', emoji: 'x' }, { source: {} }],
    ['what is no emoji', { porch: 'emoji', emoji: 'x'.repeat(41) }, {}],
    ['what is no text', { porch: 'emoji', emoji: 7 }, {}],
    ['nothing', null, {}],
  ])('is not believed: %s', (_what, data, from) => {
    say(data, from);
    expect(pick).not.toHaveBeenCalled();
  });

  it('is heard no more once it is closed', () => {
    stop();
    say({ porch: 'emoji', emoji: '🌱' });
    expect(pick).not.toHaveBeenCalled();
  });
});

describe('something that is put into a text', () => {
  it('comes in place of what is marked, with the cursor behind it', () => {
    expect(withPut('Thank you', { from: 9, to: 9 }, '🌱')).toEqual({
      text: 'Thank you🌱',
      cursor: 11,
    });
    expect(withPut('Thank you', { from: 0, to: 5 }, '🙏')).toEqual({ text: '🙏 you', cursor: 2 });
  });
});
