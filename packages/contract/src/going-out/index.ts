import type { Crop, FindingCode, FindingPlace, SendingCode, SendingState } from '@zesting/core';
import { IsBoolean, Matches } from 'class-validator';
import { ClientClockShape } from '../calendar/index.js';
import { MediumShape, NamedTextShape, PlacementShape } from '../production/index.js';

/** That somebody looked at what goes out, or took that back. */
export class PlacementCheckBody {
  @IsBoolean()
  isChecked: boolean;

  /** what was looked at: the row's `seen` */
  @Matches(/^[0-9a-f]{64}$/)
  seen: string;
}

/** Something that speaks against going out. */
export class FindingShape {
  code: FindingCode;
  /** `must`: it does not go out like this */
  severity: 'must' | 'should';
  place: FindingPlace;
  what?: string;
  count?: number;
  limit?: number;
}

/** Who looked at what goes out, and when. */
export class PlacementCheckShape {
  by: string;
  at: string;
}

/** How the latest way of a placement to its channel stands. */
export class SendingShape {
  state: SendingState;
  code: SendingCode | null;
  /** the channel's own words, or what was not ready */
  reason: string | null;
  /** how often it was put to the channel */
  tries: number;
  claimedAt: string;
  /** when it is gone on with by itself */
  nextAt: string | null;
  comment: 'none' | 'waiting' | 'placed' | 'given_up';
  /** who sent it now; null: its time had come */
  askedBy: string | null;
  /** who said what became of it; null: the channel, or nobody yet */
  settledBy: string | null;
}

/** A placement that goes out, or should have. */
export class GoingOutRowShape extends PlacementShape {
  pieceTitle: string;
  pieceNumber: number;
  formatName: string;
  /** the instant that it is meant for */
  publishAt: string;
  pictureId: string | null;
  /** what speaks against it, what must be settled first; nothing once it is out */
  findings: FindingShape[];
  /** null: nobody, or it was changed since */
  check: PlacementCheckShape | null;
  /** whether somebody had looked at it before it was changed */
  wasChecked: boolean;
  /** what a tick is for: the parts that go out here, the day and the time */
  seen: string;
  /** whether it goes out by itself; else somebody posts it */
  byItself: boolean;
  /** null: nothing was sent by itself yet */
  sending: SendingShape | null;
}

export class GoingOutShape {
  /** each client's own clock: its today is the first of the days */
  clocks: ClientClockShape[];
  /** from each client's today on, in the order in which they go out */
  rows: GoingOutRowShape[];
  /** how many more there are on these days */
  hidden: number;
  /** whose time passed, or that failed; the newest first */
  missed: GoingOutRowShape[];
  missedHidden: number;
  /** out on a channel that has addresses, without one; the newest first */
  unaddressed: GoingOutRowShape[];
  unaddressedHidden: number;
}

/** What goes out soon, in numbers. */
export class GoingOutSoonShape {
  /** placements of the clients' next days */
  count: number;
  /** of them, those that do not go out like this */
  unready: number;
  /** of the others, those that nobody has looked at */
  unchecked: number;
  /** whose time passed */
  missed: number;
  unaddressed: number;
}

/** A picture or clip as it goes out. */
export class HandOutMediumShape extends MediumShape {
  /** how it is cut; null: it goes out whole */
  crop: Crop | null;
  /** the clip whose cover it is, by its hash; null: it goes out itself */
  coverOf: string | null;
}

/** What is copied out by hand. */
export class HandOutShape {
  channelId: string;
  text: string;
  /** the same with its headings, lists and links; null: it is words alone */
  html: string | null;
  tags: string;
  firstComment: string;
  link: string;
  texts: NamedTextShape[];
  /** what goes out there, in its order */
  media: HandOutMediumShape[];
  /** what each file is called: they sort in publishing order */
  fileNames: string[];
  /** where somebody posts by hand */
  postingAddress: string | null;
  findings: FindingShape[];
}

/** What a client's pack of some days holds. */
export class PackShape {
  /** placements in it */
  count: number;
  /** files in it, texts and tables not counted */
  files: number;
  /** how large these are together */
  bytes: number;
  /** what stands on these days and is not in it, with what speaks against it */
  leftOut: GoingOutRowShape[];
}

/** What does not fit on a channel. */
export class ChannelFitShape {
  channelId: string;
  channelName: string;
  findings: FindingShape[];
}

/** What of a piece does not fit on its channels; channels on which all of it does are left out. */
export class FitsShape {
  channels: ChannelFitShape[];
}
