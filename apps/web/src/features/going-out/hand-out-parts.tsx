import type { HandOutMediumShape, HandOutShape } from '@zesting/contract';
import { frameOn } from '@zesting/core';
import { Download } from 'lucide-react';
import { count } from '../../lib/format';
import { buttonClass } from '../../ui/button';
import { CopyButton } from '../../ui/copy-button';
import { Framed } from '../../ui/framed';
import { Thumbnail } from '../../ui/thumbnail';

/** A picture as it is cut, or whole. */
const cutFrame = (medium: HandOutMediumShape) => frameOn(medium, { ratio: medium.crop?.ratio ?? '1:1', otherShapes: [], cutsMedia: false });

/** What goes out on a channel, part by part, each copied with one press, and its files. */
export function Parts({ placementId, handOut }: { placementId: string; handOut: HandOutShape }) {
  const parts = [
    ...handOut.texts.map(({ name, text }) => [name, text] as const),
    ['Text', handOut.text],
    ['Tags', handOut.tags],
    ['First comment', handOut.firstComment],
    ['Link', handOut.link],
  ] satisfies readonly (readonly [string, string])[];
  return (
    <>
      {parts
        .filter(([, text]) => text !== '')
        .map(([name, text]) => (
          <div key={name} className="mb-2.5">
            <div className="flex items-center justify-between gap-2">
              <h3 className="text-[13px] font-semibold">{name}</h3>
              <CopyButton name={name} text={text} html={name === 'Text' ? handOut.html : null} />
            </div>
            <p
              className="whitespace-pre-wrap break-words rounded-md bg-sunk px-2.5 py-1.5 text-[13px] max-h-40 overflow-auto"
              tabIndex={0}
              aria-label={name}
              role="region"
            >
              {text}
            </p>
          </div>
        ))}
      {handOut.media.length > 0 && (
        <>
          <h3 className="text-[13px] font-semibold mb-1">{count(handOut.media.length, 'picture or clip', 'pictures and clips')}</h3>
          <ul className="grid gap-1.5">
            {handOut.media.map((medium, index) => (
              <li key={`${medium.assetId}-${index}`} className="flex items-center gap-2.5 min-w-0">
                <span className="w-10 shrink-0 grid place-items-center">
                  {medium.mime.startsWith('image/') ? (
                    <Framed frame={cutFrame(medium)} src={`/api/files/${medium.assetId}?width=160`} alt="" side={40} />
                  ) : (
                    <Thumbnail pictureId={null} />
                  )}
                </span>
                <span className="min-w-0 flex-1 truncate text-[13px]" title={medium.alt || medium.name}>
                  {medium.coverOf !== null && <span className="text-muted">Cover: </span>}
                  {medium.alt || medium.name}
                </span>
                {medium.alt && <CopyButton name={`Alternative text ${index + 1}`} text={medium.alt} />}
                <a
                  href={`/api/placements/${placementId}/files/${index + 1}`}
                  download
                  className={buttonClass('quiet')}
                  aria-label={`Download ${handOut.fileNames[index] ?? medium.name}`}
                >
                  <Download size={15} aria-hidden />
                </a>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
