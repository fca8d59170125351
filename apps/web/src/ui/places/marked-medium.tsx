import type { MediumShape } from '@zesting/contract';
import { momentWords, toSeen, toWhole, type Frame, type Pointed } from '@zesting/core';
import { useRef, useState } from 'react';
import { Preview } from '../preview';
import { AreaPicker } from './area-picker';
import { isOn, MarkNumber, type Mark } from './mark';

interface MarkedMediumProps {
  readonly medium: MediumShape;
  /** which of the piece's pictures and clips it is, from 1 */
  readonly number: number;
  /** how it is seen here */
  readonly frame: Frame;
  readonly source: string;
  /** where the picture is that stands for a clip before it plays */
  readonly poster?: string | undefined;
  /** those of all the piece; the ones on this picture or clip are shown */
  readonly marks: readonly Mark[];
  readonly onChoose?: ((id: string) => void) | undefined;
  /** a place is being pointed at */
  readonly onPick?: ((pointed: Pointed) => void) | undefined;
}

/** Says of a picture that it stands for the clip before it. */
export const CoverWords = ({ medium: { coverOf } }: { medium: { readonly coverOf: string | null } }) =>
  coverOf === null ? null : <p className="text-muted text-[13px] mb-1">Cover of the clip above: what is seen before it plays</p>;

/** A picture with the areas that remarks mean, or a clip with their moments. */
export function MarkedMedium(props: MarkedMediumProps) {
  const { medium, frame, source } = props;
  if (medium.mime.startsWith('image/')) return <MarkedPicture {...props} />;
  if (/^(video|audio)\//.test(medium.mime)) return <MarkedClip {...props} />;
  return <Preview medium={medium} frame={frame} source={source} />;
}

function MarkedPicture({ medium, number, frame, source, marks, onChoose, onPick }: MarkedMediumProps) {
  const seen = frame.kept;
  return (
    <div className="relative overflow-hidden rounded-md">
      <Preview medium={medium} frame={frame} source={source} />
      {marks.filter(isOn(medium.assetId)).map((mark) => {
        if (mark.place.kind !== 'region') return null;
        const area = toSeen(mark.place, seen);
        return (
          <div
            key={mark.id}
            className={`absolute rounded-sm border-2 ${mark.isChosen ? 'border-lake outline-2 outline-card' : mark.isDone ? 'border-card border-dashed' : 'border-rind outline-1 outline-card'} pointer-events-none`}
            style={{ left: `${area.x / 100}%`, top: `${area.y / 100}%`, width: `${area.width / 100}%`, height: `${area.height / 100}%` }}
          >
            <span className="absolute top-0.5 left-0.5 pointer-events-auto">
              <MarkNumber mark={mark} onChoose={onPick ? undefined : onChoose} />
            </span>
          </div>
        );
      })}
      {onPick && (
        <AreaPicker
          label={`picture ${number}`}
          onPick={(area) => onPick({ kind: 'region', assetId: medium.assetId, ...toWhole(area, seen) })}
        />
      )}
    </div>
  );
}

function MarkedClip({ medium, number, frame, source, poster, marks, onChoose, onPick }: MarkedMediumProps) {
  const clip = useRef<HTMLMediaElement>(null);
  const [atMs, setAtMs] = useState(0);
  const goTo = (ms: number) => {
    if (clip.current) clip.current.currentTime = ms / 1000;
  };
  return (
    <div>
      <Preview
        medium={medium}
        frame={frame}
        source={source}
        poster={poster}
        clip={clip}
        onTime={(seconds) => setAtMs(Math.round(seconds * 1000))}
      />
      <div className="flex flex-wrap gap-2 mt-1 text-[13px]">
        {marks.filter(isOn(medium.assetId)).map((mark) => {
          if (mark.place.kind !== 'moment') return null;
          const { atMs: at } = mark.place;
          return (
            <span key={mark.id} className={`inline-flex items-center gap-1 rounded-md px-1 ${mark.isChosen ? 'bg-lake-soft' : ''}`}>
              <MarkNumber mark={mark} onChoose={onPick ? undefined : onChoose} />
              <button type="button" className="text-pine underline min-h-8 tabular" onClick={() => goTo(at)}>
                {momentWords(at)}
              </button>
            </span>
          );
        })}
        {onPick && (
          <button
            type="button"
            className="min-h-11 sm:min-h-8 px-3 rounded-md border border-lake text-lake font-semibold tabular"
            onClick={() => onPick({ kind: 'moment', assetId: medium.assetId, atMs })}
          >
            Point at {momentWords(atMs)} of clip {number}
          </button>
        )}
      </div>
    </div>
  );
}
