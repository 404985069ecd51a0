import { type AlertMail, en, renderAlertMail } from '.';

const twoPastTen = Date.UTC(2026, 10, 12, 10, 2);

const mail: AlertMail = {
  business: 'Quillfern Nursery',
  zone: 'Europe/London',
  called: { by: 'name', what: 'Wren <b>' },
  since: twoPastTen,
  isNote: false,
  slips: [
    {
      by: null,
      at: twoPastTen,
      text: 'Is it "open"?\nI have <script>',
      files: [],
    },
    { by: 'Maren', at: twoPastTen + 120_000, text: 'Yes', files: [{ name: 'plan.pdf' }] },
  ],
  hasEarlier: true,
  as: 'Maren',
  until: Date.UTC(2026, 10, 26, 10),
  link: 'https://porch.example/line/talk-1?a=1&b=2',
};

describe('the mail that says that somebody waits', () => {
  it('carries who, since when, the conversation so far, and how it is answered', () => {
    const { subject, text } = renderAlertMail(mail, en);
    expect(subject).toBe('Wren <b> waits: Is it "open"? I have <script>');
    expect(text).toContain('has been waiting for an answer since Thu 12 Nov, 10:02.');
    expect(text).toMatch(
      /What was said before[\s\S]*Wren <b>, Thu 12 Nov, 10:02\nIs it "open"\?\nI have <script>[\s\S]*Maren, Thu 12 Nov, 10:04\nYes\n\[plan\.pdf\]/,
    );
    expect(text).toContain('goes out as Maren');
    expect(text).toContain('until 26 November');
    expect(text).toContain(mail.link);
    expect(text.startsWith(en.above)).toBe(true);
  });

  it('is safe as HTML whatever was written, and fetches nothing', () => {
    const { html } = renderAlertMail(mail, en);
    expect(html).not.toMatch(/<script|<b>|<img|src=|@import|url\(/);
    expect(html).toContain('I have &#60;script&#62;');
    expect(html).toContain('talk-1?a=1&#38;b=2');
  });

  it('says that answers go nowhere where they do', () => {
    const { text, html } = renderAlertMail({ ...mail, until: null }, en);
    expect(text).toContain(en.onlyOpen);
    expect(text + html).not.toContain(en.above);
  });

  it('calls somebody without a name by what is known of them, by the business’s clock', () => {
    const subjectFor = (called: AlertMail['called']) =>
      renderAlertMail({ ...mail, called, slips: [] }, en).subject;
    expect(subjectFor({ by: 'page', what: 'Monstera' })).toBe(
      'Visitor on Monstera waits for an answer',
    );
    expect(subjectFor({ by: 'city', what: 'Lisbon' })).toBe(
      'Visitor, Lisbon time waits for an answer',
    );
    expect(subjectFor({ by: 'nothing' })).toBe('Visitor waits for an answer');
    expect(renderAlertMail({ ...mail, zone: 'Asia/Tokyo' }, en).text).toContain(
      'Thu 12 Nov, 19:02',
    );
  });

  it('has a short subject however long the words are, and one without any', () => {
    const long = { ...mail, slips: [{ ...mail.slips[0], text: 'a'.repeat(500) }] } as AlertMail;
    expect(renderAlertMail(long, en).subject.length).toBeLessThan(90);
    expect(renderAlertMail({ ...mail, slips: [] }, en).subject).toBe(
      'Wren <b> waits for an answer',
    );
  });
});
