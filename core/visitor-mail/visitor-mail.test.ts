import { readyColours } from '../colours';
import { textsIn } from '../door-texts';
import { ABOVE_MARK, renderVisitorMail, type VisitorMail } from '.';

const mail: VisitorMail = {
  business: 'Fern & Sons',
  language: 'en',
  texts: textsIn('en'),
  colours: readyColours.dusk,
  fresh: [{ who: 'Maren', when: '10:00', text: 'Two left.\n<script>', files: ['fern.jpg'] }],
  before: [{ who: '', when: '09:00', text: 'Do you have ferns?', files: [] }],
  stopLink: 'https://porch.example/mail/stop/abc',
};

describe('the mail that brings an answer', () => {
  it('has what is new first, then what was said before, then why it came and how to stop it', () => {
    const { text, subject } = renderVisitorMail(mail);
    expect(subject).toBe('Your message to Fern & Sons');
    const order = [
      'Two left.',
      'fern.jpg',
      'What was said before',
      'Do you have ferns?',
      'You get this',
      mail.stopLink,
    ];
    const places = order.map((part) => text.indexOf(part));
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(places[0]).toBeGreaterThan(0);
    expect(text.startsWith(ABOVE_MARK)).toBe(true);
    expect(text).toContain('You, 09:00');
  });

  it('runs and fetches nothing: what people wrote is text', () => {
    const { html } = renderVisitorMail(mail);
    expect(html).not.toContain('<script>');
    expect(html).toContain('&#60;script&#62;');
    expect(html).toContain('Fern &#38; Sons');
    expect(html).not.toMatch(/<(img|link|iframe)|src=|url\(/);
  });

  it('is dressed for the night too, and written from right to left where that is so', () => {
    expect(renderVisitorMail(mail).html).toMatch(/@media\(prefers-color-scheme:dark\)\{body\{/);
    expect(renderVisitorMail({ ...mail, language: 'ar' }).html).toContain('lang="ar" dir="rtl"');
  });

  it('says nothing of what was before where nothing was', () => {
    expect(renderVisitorMail({ ...mail, before: [] }).text).not.toContain('What was said before');
  });
});
