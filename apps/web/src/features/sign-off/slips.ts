import type { ReadyPieceShape } from '@zesting/contract';
import { dayWords } from '../../lib/format';

/** What slips, by name: pieces whose answer comes too late, whether the client takes its span or the whole time it is given. */
export function slipWords(pieces: readonly ReadyPieceShape[], dueOn: string): string[] {
  return pieces.flatMap((piece) => {
    const { latestFinishOn: latest, answerOn, title } = piece;
    if (latest === null) return [];
    if (piece.slips && answerOn !== null)
      return [
        `${title} slips: the client’s time ends ${dayWords(answerOn)}, its answer was needed by ${dayWords(latest)}.${
          piece.earliestPublishOn ? ` It can be out on ${dayWords(piece.earliestPublishOn)}.` : ''
        }`,
      ];
    return dueOn > latest ? [`${title} needs its answer by ${dayWords(latest)}: ${dayWords(dueOn)} is too late for it.`] : [];
  });
}
