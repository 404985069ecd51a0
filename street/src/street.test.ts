import { type OpenStreet, openStreet } from './street';

describe('a street', () => {
  const open: OpenStreet[] = [];
  afterEach(() => Promise.all(open.splice(0).map((street) => street.close())));

  const another = async (): Promise<OpenStreet> => {
    const wavelet = {
      account: 'quillfern',
      key: 'the key',
      address: 'http://127.0.0.1:9/',
      word: 'w',
    };
    const networks = JSON.stringify({ wavelet });
    const env = { STREET_PORT: '0', STREET_MAIL_PORT: '0', QUIET: '1', NETWORKS: networks };
    const street = await openStreet({ ...env, PORCH_ORIGIN: 'http://127.0.0.1:9' }, Date.now);
    open.push(street);
    return street;
  };
  const post = ({ origin }: OpenStreet, path: string, fields: Record<string, string>) =>
    fetch(origin + path, { method: 'POST', body: new URLSearchParams(fields) });
  const feedOf = async ({ origin }: OpenStreet): Promise<string> =>
    (
      await fetch(`${origin}/wavelet/pages/quillfern/feed?after=0`, {
        headers: { 'wavelet-key': 'the key' },
      })
    ).text();
  const pageOf = async ({ origin }: OpenStreet, path: string): Promise<string> =>
    (await fetch(origin + path)).text();

  it('knows nothing of what happens on another one, though both stand in one process', async () => {
    const [one, other] = [await another(), await another()];
    const asked = { question: 'Do you have ferns?', answer: 'We do.', do: 'add' };
    await post(one, '/townfinder/questions', asked);
    await post(one, '/wavelet/phone/marit.k', { what: 'say', text: 'Is it the silvery one?' });
    await post(one, '/exchange/call', { from: '+447700900123', text: '' });
    expect(await pageOf(one, '/townfinder')).toContain('Do you have ferns?');
    expect(await pageOf(one, '/exchange')).toContain('the door did not answer');
    for (let turn = 0; turn < 200 && !(await feedOf(one)).includes('silvery'); turn += 1);
    expect(await feedOf(one)).toContain('silvery');
    expect(await feedOf(other)).not.toContain('silvery');
    expect(await pageOf(other, '/townfinder')).not.toContain('Do you have ferns?');
    expect(await pageOf(other, '/exchange')).not.toContain('the door did not answer');
  });
});
