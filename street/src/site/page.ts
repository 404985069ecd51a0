import { facts } from './facts';

/** The pages of Quillfern Nursery's made-up website. */
export interface SitePage {
  path: string;
  title: string;
  lead: string;
  body: readonly string[];
}

export const sitePages: readonly SitePage[] = [
  {
    path: '/',
    title: 'Houseplants',
    lead: 'Houseplants, grown slowly, in Larkhope since 2009.',
    body: [
      'Half of what stands in our glasshouse was grown in it. The rest comes from two growers within an hour of here, on a lorry that knows the way.',
      `Come and look: Mill Lane 3, Larkhope, ${facts.shopInWords}.`,
      'Or ask us anything, at the corner of this page.',
    ],
  },
  {
    path: '/monstera-deliciosa',
    title: 'Monstera deliciosa',
    lead: `£${facts.monstera.withPot} with the pot, £${facts.monstera.without} without. Each plant is its own; we send you a picture before you pay.`,
    body: [
      'Bright shade, a pole to climb, and water when the top of the soil is dry to the second knuckle.',
      'Not for cats that chew.',
    ],
  },
  {
    path: '/repotting-bench',
    title: 'Repotting bench',
    lead: 'Bring the plant; leave with a plant that has room.',
    body: [
      `Tobias is at the bench ${facts.benchInWords}.`,
      `Repotting up to 40 cm: £${facts.repotting.small}. Up to a metre: £${facts.repotting.metre}. Taller: from £${facts.repotting.tall}. The soil is included, the pot is not.`,
    ],
  },
  {
    path: '/delivery',
    title: 'Delivery',
    lead: `${facts.delivery.days}, within ${facts.delivery.miles} miles of Larkhope.`,
    body: [
      `£${facts.delivery.cost}, free from £${facts.delivery.freeFrom}. Plants up to ${facts.post.centimetres} cm also go by post, on ${facts.post.day}.`,
    ],
  },
];

const nav = sitePages.map(({ path, title }) => `<a href="${path}">${title}</a>`).join('');

/** One page, with the snippet before the end of the body as an owner would paste it. */
export const renderPage = (page: SitePage, snippet: string): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<link rel="icon" href="data:,">
<title>${page.title} – Quillfern Nursery</title>
<style>
body{margin:0;font:18px/1.6 Georgia,serif;color:#24352a;background:#f4f7f0}
header{padding:28px 24px;background:#24352a;color:#f4f7f0}
header b{font-size:28px;letter-spacing:.5px}
nav{display:flex;flex-wrap:wrap;gap:4px 20px;margin-top:10px}
nav a{color:#dfe9d5}
main{max-width:720px;padding:32px 24px 160px}
h1{font-size:34px;line-height:1.2;margin:0 0 12px}
.lead{font-size:21px}
.leaves{display:block;width:100%;max-width:720px;height:auto}
</style>
</head>
<body>
<header><b>Quillfern Nursery</b><nav>${nav}</nav></header>
<main>
<h1>${page.title}</h1>
<p class="lead">${page.lead}</p>
<svg class="leaves" viewBox="0 0 720 220" aria-hidden="true"><rect width="720" height="220" fill="#dfe9d5"/>
${Array.from({ length: 12 }, (_, index) => `<path transform="translate(${40 + index * 58} 220) rotate(${((index * 37) % 50) - 25})" d="M0 0C34-40 40-110 0-${150 + ((index * 23) % 60)}C-40-110-34-40 0 0Z" fill="${['#4d8a6a', '#2f6247', '#7fae5b'][index % 3]}"/>`).join('')}
</svg>
${page.body.map((text) => `<p>${text}</p>`).join('')}
</main>
${snippet}
</body>
</html>
`;
