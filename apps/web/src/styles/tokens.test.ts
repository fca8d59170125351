import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { luminance, luminanceRatio as ratio, parseHex } from '@zesting/core';

/** Contrast by WCAG 2.2, as core reckons it. */
type Rgb = readonly [number, number, number];

const css = readFileSync(join(__dirname, 'tokens.css'), 'utf8');
const [light = '', dark = ''] = css.split('@media screen and (prefers-color-scheme: dark)');
const tokensOf = (part: string) => new Map([...part.matchAll(/--([\w-]+):\s*([^;]+);/g)].map((match) => [match[1] ?? '', match[2] ?? '']));
const modes = { light: tokensOf(light), dark: tokensOf(dark) };

const luminanceOfLinear = ([r, g, b]: Rgb): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;

/** OKLCH to linear sRGB, clipped. @see CSS Color 4, sample code for conversions (values from memory) */
function oklch(lightness: number, chroma: number, hue: number): Rgb {
  const [a, b] = [chroma * Math.cos((hue * Math.PI) / 180), chroma * Math.sin((hue * Math.PI) / 180)];
  const l = (lightness + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (lightness - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (lightness - 0.0894841775 * a - 1.291485548 * b) ** 3;
  const clip = (value: number): number => Math.min(1, Math.max(0, value));
  return [
    clip(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
    clip(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
    clip(-0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s),
  ];
}

const TEXT: [ink: string, ground: string][] = [
  ...['ink', 'muted', 'pine', 'rind', 'rhubarb', 'lake'].flatMap((ink) =>
    ['paper', 'card', 'sunk'].map((ground): [string, string] => [ink, ground]),
  ),
  ...['pine', 'rind', 'rhubarb', 'lake'].flatMap((ink): [string, string][] => [
    [ink, `${ink}-soft`],
    ['ink', `${ink}-soft`],
  ]),
  ['on-pine', 'pine'],
  ['band-ink', 'band'],
  ['band-muted', 'band'],
  ['band', 'zest'],
  ['muted', 'pine-soft'],
];
const SHAPES: [string, string][] = [
  ['line-strong', 'card'],
  ['line-strong', 'paper'],
  ['zest', 'band'],
  ['lake', 'paper'],
];

describe.each(Object.entries(modes))('the colours in %s', (_mode, tokens) => {
  const of = (name: string): number => {
    const colour = parseHex(tokens.get(name) ?? '');
    if (!colour) throw new Error(`no colour ${name}`);
    return luminance(colour);
  };

  it.each(TEXT)('%s can be read on %s (4.5)', (ink, ground) => {
    expect(ratio(of(ink), of(ground))).toBeGreaterThanOrEqual(4.5);
  });

  it.each(SHAPES)('%s can be seen on %s (3)', (shape, ground) => {
    expect(ratio(of(shape), of(ground))).toBeGreaterThanOrEqual(3);
  });

  it.each(Array.from({ length: 12 }, (_, step) => step))('client colour %i can be seen on paper and card (3)', (step) => {
    const colour = luminanceOfLinear(oklch(Number(tokens.get('client-lightness')), 0.13, step * 30 + 20));
    for (const ground of ['paper', 'card']) expect(ratio(colour, of(ground))).toBeGreaterThanOrEqual(3);
  });
});
