import type { PaletteColourBody } from '@zesting/contract';
import { contrast, contrastUse, parseHex, type ContrastUse } from '@zesting/core';

const USE_WORDS: Record<ContrastUse, string> = { text: 'text', large_text: 'large text', neither: 'no text' };

/** What each colour can be used for on each ground, by WCAG 2.2: text from 4.5, large text and shapes from 3. */
export function ContrastTable({ palette }: { palette: readonly PaletteColourBody[] }) {
  const inks = palette.flatMap(({ name, hex }) => {
    const colour = parseHex(hex);
    return colour ? [{ name: name || hex, colour }] : [];
  });
  const white = parseHex('#ffffff');
  if (inks.length === 0 || !white) return null;
  const grounds = [{ name: 'White', colour: white }, ...inks.filter((ink) => ink.colour !== white)];
  return (
    <div className="mt-4 overflow-x-auto">
      <table className="text-[12px] tabular">
        <caption className="text-left text-muted text-[13px] mb-1">Contrast: text from 4.5, large text and shapes from 3</caption>
        <thead>
          <tr>
            <th className="text-left font-medium pr-3 align-bottom">on</th>
            {grounds.map((ground) => (
              <th key={ground.name} scope="col" className="font-medium px-1 pb-1 max-w-24 truncate" title={ground.name}>
                {ground.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {inks.map((ink) => (
            <tr key={ink.name}>
              <th scope="row" className="text-left font-medium pr-3 max-w-28 truncate" title={ink.name}>
                {ink.name}
              </th>
              {grounds.map((ground) => {
                const ratio = contrast(ink.colour, ground.colour);
                const use = contrastUse(ratio);
                return (
                  <td key={ground.name} className="p-0.5">
                    {ground.colour === ink.colour ? (
                      <span className="block text-center text-muted">–</span>
                    ) : (
                      <span className="flex items-center gap-1.5 whitespace-nowrap">
                        <span
                          aria-hidden
                          className="grid place-items-center w-8 h-7 rounded-sm border border-line"
                          style={{ background: ground.colour }}
                        >
                          <span className="size-3.5 rounded-full" style={{ background: ink.colour }} />
                        </span>
                        <span className={use === 'neither' ? 'text-muted' : ''}>
                          {ratio.toFixed(1)} {USE_WORDS[use]}
                        </span>
                      </span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
