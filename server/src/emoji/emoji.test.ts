import { type House, openHouse, setUp } from '../../test-kit/house';

describe('the page of the picker of emoji', () => {
  let house: House;
  let publicId: string;
  beforeEach(async () => {
    house = await openHouse();
    publicId = (await setUp(house)).door.publicId;
  });
  afterEach(() => house.close());

  const dataOf = (page: string): { language: string; source: string } =>
    JSON.parse(/id="emoji">(.*?)<\/script>/.exec(page)?.[1] ?? '');
  const page = async (path: string) => {
    const { status, headers, body } = await house.ask('GET', path);
    const policy = String(headers['content-security-policy']);
    return { status, policy, body: String(body) };
  };

  it('stands in the app alone, or in a door’s panel on its websites', async () => {
    expect((await page('/widget/emoji')).policy).toMatch(/frame-ancestors 'self'$/);
    const { policy } = await page(`/door/${publicId}/emoji`);
    expect(policy).toContain("frame-ancestors 'self' https://quillfern.example");
    expect((await page('/door/nobodys-door/emoji')).status).toBe(404);
  });

  it('may style itself and run nothing but what is of the house', async () => {
    const { policy } = await page('/widget/emoji');
    expect(policy).toContain("default-src 'none'");
    expect(policy).toContain("script-src 'self'");
    expect(policy).toContain("style-src 'self' 'unsafe-inline'");
    expect(policy).not.toContain('unsafe-eval');
  });

  it('names emoji in English where it does not know the language, whatever is asked', async () => {
    for (const asked of ['xx', '', '__proto__', '"><script>']) {
      const { body } = await page(`/widget/emoji?language=${encodeURIComponent(asked)}`);
      const { language, source } = dataOf(body);
      expect(language).toBe('en');
      expect(source).toMatch(/^\/widget\/emoji-names-en[\w-]*\.json$/);
    }
  });
});
