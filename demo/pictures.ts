import sharp from 'sharp';

const leaf = (x: number, y: number, turn: number, size: number, colour: string): string =>
  `<g transform="translate(${x} ${y}) rotate(${turn}) scale(${size})">
    <path d="M0 0C30-26 44-70 0-130C-44-70-30-26 0 0Z" fill="${colour}"/>
    <path d="M0 0V-118M0-30L18-52M0-30L-18-52M0-58L20-80M0-58L-20-80" stroke="#1d3b2a" stroke-opacity=".45" stroke-width="3" fill="none"/>
  </g>`;

const drawing = (which: number): string => {
  const greens = ['#3f7d4e', '#5b9a55', '#2f6247', '#7fae5b', '#4d8a6a'];
  const walls = ['#e9dcc3', '#d7dfe0', '#efd9c9', '#dfe3cf', '#e4d8e0'];
  const leaves = Array.from({ length: 9 }, (_, index) => {
    const turn = -72 + index * 18 + ((which * 13 + index * 7) % 11);
    const colour = index === which % 9 ? '#c9a646' : (greens[(which + index) % 5] ?? '#3f7d4e');
    return leaf(480, 560, turn, 1.5 + ((which + index) % 4) * 0.32, colour);
  });
  const spots = Array.from({ length: which % 3 === 0 ? 0 : 14 }, (_, index) => {
    const x = 300 + ((index * 97 + which * 31) % 360);
    const y = 170 + ((index * 61 + which * 17) % 280);
    return `<ellipse cx="${x}" cy="${y}" rx="${5 + (index % 5)}" ry="${4 + (index % 3)}" fill="#6b4a21" opacity=".8"/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="960" height="720">
    <rect width="960" height="720" fill="${walls[which % 5]}"/>
    <rect y="600" width="960" height="120" fill="#a77b52"/>
    <rect x="60" y="40" width="220" height="300" fill="#f7f3e6" stroke="#8d8064" stroke-width="10"/>
    <path d="M170 40V340M60 190H280" stroke="#8d8064" stroke-width="8"/>
    ${leaves.join('')}${spots.join('')}
    <path d="M380 550H580L556 690H404Z" fill="#b5633c"/><rect x="368" y="530" width="224" height="34" rx="4" fill="#c7734a"/>
  </svg>`;
};

/** A drawn plant in a pot, a different one for each number, as a PNG. */
export const plantPicture = (which: number): Promise<Buffer> =>
  sharp(Buffer.from(drawing(which)))
    .png()
    .toBuffer();

const drawn = (svg: string): Promise<Buffer> => sharp(Buffer.from(svg)).png().toBuffer();

/** The nursery's own picture: a fern on a dark green ground. */
export const businessPicture = (): Promise<Buffer> =>
  drawn(`<svg xmlns="http://www.w3.org/2000/svg" width="480" height="480">
    <rect width="480" height="480" fill="#2f6247"/>
    ${Array.from({ length: 9 }, (_, index) => leaf(240, 420, -64 + index * 16, 1.5 + (index % 3) * 0.4, ['#dfe9d5', '#b9d3a4', '#f2efdf'][index % 3] ?? '#dfe9d5')).join('')}
    <path d="M170 400H310L294 470H186Z" fill="#c7734a"/>
  </svg>`);

const faces = [
  { skin: '#8d5a3b', hair: '#2a1d18', ground: '#dfe3cf', shirt: '#2f6247' },
  { skin: '#e7bd9a', hair: '#c9a04e', ground: '#d7dfe0', shirt: '#1f5673' },
  { skin: '#d9a07a', hair: '#5b2f22', ground: '#efd9c9', shirt: '#8f3a25' },
];

/** A drawn face, a different one for each number. */
export const facePicture = (which: number): Promise<Buffer> => {
  const { skin, hair, ground, shirt } = faces[which % faces.length] ?? {};
  return drawn(`<svg xmlns="http://www.w3.org/2000/svg" width="320" height="320">
    <rect width="320" height="320" fill="${ground}"/>
    <path d="M40 320C50 236 110 214 160 214S270 236 280 320Z" fill="${shirt}"/>
    <rect x="138" y="180" width="44" height="52" fill="${skin}"/>
    <path d="M88 150C80 60 240 60 232 150V${which % 2 === 0 ? 214 : 150}H88Z" fill="${hair}"/>
    <ellipse cx="160" cy="150" rx="56" ry="66" fill="${skin}"/>
    <path d="M102 140C110 84 210 84 218 140C190 118 150 116 102 140Z" fill="${hair}"/>
    <path d="M138 150h.1M182 150h.1" stroke="#22304a" stroke-width="10" stroke-linecap="round"/>
    <path d="M138 180C150 194 170 194 182 180" stroke="#22304a" stroke-width="5" fill="none" stroke-linecap="round"/>
  </svg>`);
};
