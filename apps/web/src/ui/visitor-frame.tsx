import type { VisitedShape } from '@zesting/contract';
import { contrast, parseHex } from '@zesting/core';
import type { CSSProperties, ReactNode } from 'react';
import { useLanguage } from '../language/language';
import { clientColour } from './tags';

/** A colour is used for buttons and links where text in it can be read on white and on the ground of the page. @see WCAG 2.2, 1.4.3 */
export function isLegible(accent: string): boolean {
  const [colour, white, paper] = [parseHex(accent), parseHex('#ffffff'), parseHex('#f7f6f1')];
  return (
    colour !== undefined && white !== undefined && paper !== undefined && Math.min(contrast(colour, white), contrast(colour, paper)) >= 4.5
  );
}

/** The frame of pages for people without an account: the client's name and colour, the agency's mark and colour, then the page. */
export function VisitorFrame({ visited, children }: { visited: VisitedShape; children: ReactNode }) {
  const { clientCode, clientName, clientMark, agencyName, agencyAccent, agencyMark } = visited;
  const { t } = useLanguage();
  const style = agencyAccent && isLegible(agencyAccent) ? ({ '--accent': agencyAccent } as CSSProperties) : undefined; // a property of our own
  return (
    <div className={`phone-first min-h-screen ${style ? 'accented' : ''}`} style={style}>
      <header
        className="bg-card"
        style={{
          borderTop: `5px solid ${clientColour(visited.clientColour)}`,
          borderBottom: agencyAccent ? `2px solid ${agencyAccent}` : '1px solid var(--line)',
        }}
      >
        <p className="max-w-2xl mx-auto px-4 py-3 flex items-center gap-2">
          {clientMark && <img src={clientMark} alt="" className="h-9 w-auto max-w-28 object-contain rounded-sm bg-white p-0.5" />}
          <span className="font-display text-lg font-semibold leading-tight">{clientName}</span>
          <span className="text-muted text-[13px]">{clientCode}</span>
          <span className="ml-auto flex items-center gap-2 text-muted text-[13px] text-right">
            {t('with {{agency}}', { agency: agencyName })}
            {agencyMark && <img src={agencyMark} alt="" className="h-8 w-auto max-w-24 object-contain" />}
          </span>
        </p>
      </header>
      <main className="max-w-2xl mx-auto px-4 py-5">{children}</main>
    </div>
  );
}

/** A page that has nothing to show but a sentence. */
export function VisitorNote({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <main className="max-w-md mx-auto px-4 py-16 text-center">
      <h1 className="text-2xl mb-2">{title}</h1>
      <div className="text-muted">{children}</div>
    </main>
  );
}
