import sharp from 'sharp';

/** Palettes: ground, far shape, near shape, detail. */
const PALETTES = {
  moss: ['#dfe7d3', '#8fae7c', '#3f6b4a', '#f2c46b'],
  fern: ['#cfe3dc', '#6f9f8e', '#245748', '#e8eecf'],
  loam: ['#efe3d0', '#b98f63', '#6a4a30', '#d9a441'],
  oven: ['#f6e0c4', '#d99a55', '#8c4a25', '#fff3df'],
  rye: ['#e9ddcc', '#a9805a', '#59402c', '#efe7da'],
  tide: ['#dbe7ee', '#7fa3b8', '#234a66', '#f0c987'],
  rope: ['#ece4d4', '#a58d63', '#54472f', '#d1495b'],
  wool: ['#f1ece1', '#b9a98c', '#6d5f4b', '#9c5b34'],
  dye: ['#e6e1ee', '#8b86b8', '#27315f', '#c9743f'],
  dusk: ['#d8d3e3', '#8d83a8', '#463e63', '#f0b98d'],
} as const satisfies Record<string, readonly [string, string, string, string]>;
export type Palette = keyof typeof PALETTES;

/** What a client's trade looks like when a script draws it. */
export type Motif = 'leaves' | 'loaves' | 'hulls' | 'threads';

const leaf = (x: number, y: number, size: number, turn: number, fill: string): string =>
  `<path transform="translate(${x} ${y}) rotate(${turn}) scale(${size})" d="M0 0C30 -40 30 -110 0 -150C-30 -110 -30 -40 0 0Z" fill="${fill}"/>
   <path transform="translate(${x} ${y}) rotate(${turn}) scale(${size})" d="M0 0V-135" stroke="#00000022" stroke-width="3"/>`;

const loaf = (x: number, y: number, size: number, turn: number, fill: string): string =>
  `<g transform="translate(${x} ${y}) rotate(${turn}) scale(${size})"><ellipse rx="150" ry="82" fill="${fill}"/>
   <path d="M-80 -40Q-60 0 -80 40M-10 -52Q10 0 -10 52M60 -46Q80 0 60 46" fill="none" stroke="#ffffff88" stroke-width="12" stroke-linecap="round"/></g>`;

const hull = (x: number, y: number, size: number, turn: number, fill: string): string =>
  `<g transform="translate(${x} ${y}) rotate(${turn / 6}) scale(${size})"><path d="M-150 0C-90 70 90 70 150 -10C60 10 -60 10 -150 0Z" fill="${fill}"/>
   <path d="M0 0V-150M0 -145L90 -20H0" fill="#ffffff55" stroke="#00000033" stroke-width="4"/></g>`;

const thread = (x: number, y: number, size: number, turn: number, fill: string): string =>
  `<path transform="translate(${x} ${y}) rotate(${turn > 0 ? 90 : 0})" d="M-900 ${size * 6}C-300 ${-size * 14} 300 ${size * 20} 900 0" stroke="${fill}" stroke-width="${size * 16}" fill="none" stroke-linecap="round"/>`;

const SHAPES = { leaves: leaf, loaves: loaf, hulls: hull, threads: thread };

/** A number in [0, 1) that depends on the seed alone. */
const random = (seed: number): number => {
  const x = Math.sin(seed * 127.1) * 43758.5453;
  return x - Math.floor(x);
};

const drawn = new Map<string, Promise<Buffer>>();

/** Draws a picture as PNG. The same arguments draw the same picture, once in a process. */
export function drawPicture(motif: Motif, palette: Palette, seed: number, width = 720, height = 900): Promise<Buffer> {
  const key = [motif, palette, seed, width, height].join();
  const found = drawn.get(key) ?? draw(motif, palette, seed, width, height);
  drawn.set(key, found);
  return found;
}

function draw(motif: Motif, palette: Palette, seed: number, width: number, height: number): Promise<Buffer> {
  const [ground, far, near, detail] = PALETTES[palette];
  const shapes = Array.from({ length: 14 }, (_, index) => {
    const at = (salt: number) => random(seed * 31 + index * 7 + salt);
    const fill = index < 6 ? far : index < 12 ? near : detail;
    return SHAPES[motif](
      at(1) * width,
      height * (0.35 + at(2) * 0.6),
      ((motif === 'leaves' ? 1.6 : 0.9) + at(3) * 1.4) * (width / 1080),
      at(4) * 120 - 60,
      fill,
    );
  });
  const sun = `<circle cx="${width * (0.2 + random(seed) * 0.6)}" cy="${height * 0.2}" r="${width * 0.13}" fill="${detail}"/>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="${ground}"/>${sun}${shapes.join('')}</svg>`;
  return sharp(Buffer.from(svg)).png({ compressionLevel: 6 }).toBuffer();
}
