import type { Place } from '@zesting/core';

/** A remark at a place that can be seen, by the number under which it stands in the list beside. */
export interface Mark {
  readonly id: string;
  readonly number: number;
  readonly place: Place;
  /** settled or answered already */
  readonly isDone: boolean;
  readonly isChosen: boolean;
}

/** Whether a mark lies on a picture or in a clip. */
export const isOn =
  (assetId: string) =>
  ({ place }: Mark): boolean =>
    place.kind !== 'stretch' && place.assetId === assetId;

/** Whether a mark stands in a text: a channel's own copy, the copy that channels share, or another of the piece's texts. */
export const isIn =
  (channelId: string | null, textKey?: string) =>
  ({ place }: Mark): boolean =>
    place.kind === 'stretch' && place.textKey === textKey && (textKey !== undefined || place.channelId === channelId);

const LOOKS = {
  open: 'bg-rind text-card border-rind',
  done: 'bg-card text-muted border-line-strong',
} as const;

/** The number of a remark: the same beside its words and at its place. */
export function MarkNumber({
  mark,
  onChoose,
}: {
  mark: Pick<Mark, 'id' | 'number' | 'isDone'>;
  onChoose?: ((id: string) => void) | undefined;
}) {
  const look = `inline-grid place-items-center min-w-6 h-6 px-1 rounded-full border text-[12px] font-semibold tabular select-none ${LOOKS[mark.isDone ? 'done' : 'open']}`;
  if (!onChoose)
    return (
      <span className={look} aria-hidden>
        {mark.number}
      </span>
    );
  return (
    <button type="button" className={look} aria-label={`Remark ${mark.number}`} onClick={() => onChoose(mark.id)}>
      {mark.number}
    </button>
  );
}
