/** What a client's retainer includes in a month: hours of work, pieces of a format, either, or neither. */
export interface Allowance {
  /** null: hours are not agreed */
  readonly hours: number | null;
  readonly formats: readonly { readonly formatId: string; readonly pieces: number }[];
}

/** A piece of a month: those aimed at a day of it, and those without a day that were begun in it. */
export interface MonthPiece {
  readonly formatId: string;
  readonly effortMinutes: number;
}

/** How much of what is included is used; over it where `used` is more. */
export interface AllowanceLine {
  /** null: the hours */
  readonly formatId: string | null;
  /** hours, or pieces */
  readonly included: number;
  readonly used: number;
  readonly left: number;
  /** what would be left with the piece that is asked about; null where it is none of this line's */
  readonly leftThen: number | null;
}

/**
 * How much of a month's allowance is used by its pieces, and what one more would leave; negative is over it. Hours count whole work, also where it
 * reaches into another month. A retainer by hours or by pieces a month is common practice.
 */
export function allowanceLeft(allowance: Allowance, pieces: readonly MonthPiece[], asked: MonthPiece | null): AllowanceLine[] {
  const lines: AllowanceLine[] = allowance.formats.map(({ formatId, pieces: included }) => {
    const used = pieces.filter((piece) => piece.formatId === formatId).length;
    return { formatId, included, used, left: included - used, leftThen: asked?.formatId === formatId ? included - used - 1 : null };
  });
  if (allowance.hours === null) return lines;
  const minutes = pieces.reduce((sum, piece) => sum + piece.effortMinutes, 0);
  const inHours = (all: number) => Math.round(all / 6) / 10;
  const left = (all: number) => inHours((allowance.hours ?? 0) * 60 - all);
  return [
    ...lines,
    {
      formatId: null,
      included: allowance.hours,
      used: inHours(minutes),
      left: left(minutes),
      leftThen: asked ? left(minutes + asked.effortMinutes) : null,
    },
  ];
}
