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
