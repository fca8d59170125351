import type { PieceShape, RemarkShape } from '@zesting/contract';
import { followPlace, placeWords, type Content, type Place } from '@zesting/core';
import type { Mark } from '../../../ui/places';

/** What is worked on, as a content. */
export const contentOf = ({ content: { shared, channels } }: PieceShape): Content => ({
  shared,
  channels: Object.fromEntries(channels.map((part) => [part.channelId, part])),
});

/** Where a remark is in what is worked on now. */
export interface PlacedRemark {
  readonly remark: RemarkShape;
  /** under which it stands in the list and at its place */
  readonly number: number;
  /** where it is now; null: the whole, or nowhere any more */
  readonly place: Place | null;
  /** the place in words, as it was meant; empty: the whole */
  readonly where: string;
  /** what became of it, where it is not as it was */
  readonly became: string;
}

/** Numbers remarks as they stand, and finds their places in what is worked on now. */
export function placed(remarks: readonly RemarkShape[], content: Content): PlacedRemark[] {
  return remarks.map((remark, index) => {
    const { place, state } = remark.place ? followPlace(remark.place, content) : { place: null, state: 'stands' };
    const now = place?.kind === 'stretch' && state === 'changed' ? `changed since: ${placeWords(place)}` : '';
    return {
      remark,
      number: index + 1,
      place,
      where: remark.place ? placeWords(remark.place) : '',
      became: state === 'gone' ? 'no longer there' : now,
    };
  });
}

/** Those that can be shown at their place. */
export const marksOf = (remarks: readonly PlacedRemark[], chosenId: string | null): Mark[] =>
  remarks.flatMap(({ remark, number, place }) =>
    place ? [{ id: remark.id, number, place, isDone: remark.state !== 'open', isChosen: remark.id === chosenId }] : [],
  );
