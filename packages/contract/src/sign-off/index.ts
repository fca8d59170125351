import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayNotEmpty, ArrayUnique, IsArray, IsIn, IsString, IsUUID, MaxLength, ValidateNested } from 'class-validator';
import { IsNotBlank, IsDay, Optional, VisitedShape } from '../fields/index.js';
import type { Crop, PartState, SignOffPolicy, RequestState } from '@zesting/core';
import { ContactShape } from '../clients/index.js';
import { RoomInterviewShape } from '../interviews/index.js';
import { RoomDeliveryShape } from '../material/index.js';
import { MediumShape, ReadTextShape } from '../production/index.js';
import { RoomThreadShape, ThingBody } from '../remarks/index.js';

export class SendPacketBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  title: string;

  @Optional()
  @IsString()
  @MaxLength(5000)
  message?: string;

  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(100)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  pieceIds: string[];

  @IsDay()
  dueOn: string;
}

export class SentPacketShape {
  packetId: string;
}

/** A piece that may be sent to the client now. */
export class ReadyPieceShape {
  pieceId: string;
  /** its first picture */
  pictureId: string | null;
  number: number;
  title: string;
  round: number;
  /** the sign-off step's latest finish */
  latestFinishOn: string | null;
  /** the day on which the client's word comes when sent today and they take the span that the route gives them */
  answerOn: string | null;
  /** that day is too late for the piece's date */
  slips: boolean;
  /** the earliest publish date that can be met then */
  earliestPublishOn: string | null;
  /** the client's remarks that must be settled or answered first */
  openRemarks: number;
  /** the team's own that are open; they hold nothing up */
  openTeamRemarks: number;
  /** a part was changed after it was signed */
  isVoided: boolean;
}

/** How likely an answer has come by a day, were it asked for today. */
export class AnsweredByShape {
  on: string;
  /** from 0 to 1 */
  chance: number;
}

/** How long a client's answers take, by how long such answers took. */
export class AnswerForecastShape {
  /** the client's next working days in their order, today among them where it is one */
  days: AnsweredByShape[];
  /** on how many answers it rests: of this client, and of all */
  own: number;
  all: number;
}

export class ReadyShape {
  pieces: ReadyPieceShape[];
  approvers: ContactShape[];
  policy: SignOffPolicy;
  /** the client's date now */
  todayOn: string;
  /** the earliest latest-finish of the pieces, else as long as the client usually has; a working day of the client */
  suggestedDueOn: string;
  /** null: too little is known */
  answers: AnswerForecastShape | null;
}

export class PacketItemShape {
  pieceId: string;
  number: number;
  title: string;
  round: number;
  outcome: 'approved' | 'changes' | null;
  /** the first picture of the version that was sent */
  pictureId: string | null;
}

export class PacketShape {
  id: string;
  clientId: string;
  title: string;
  dueOn: string;
  isPastDue: boolean;
  sentAt: string;
  sentBy: string;
  /** the client’s working days since it was sent; 0 once it is answered */
  waitedDays: number;
  closedAt: string | null;
  items: PacketItemShape[];
  approvers: ContactShape[];
  /** ids of the contacts whose word is awaited now */
  awaitedIds: string[];
  remindedAt: string | null;
  chasedAt: string | null;
  /** the day of the client's from which "no answer" may be recorded; null where silence is not agreed */
  silenceFromOn: string | null;
}

/** Whom a chase goes to, with the words ready to be sent. */
export class ChaseShape {
  receivers: { name: string; email: string }[];
  subject: string;
  text: string;
}

export class ChaseBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(5000)
  text: string;
}

export class ChasedShape {
  receivers: number;
}

export class PacketsShape {
  /** those due first */
  open: PacketShape[];
  /** how many are out in all */
  openCount: number;
  /** the latest */
  closed: PacketShape[];
}

export class RecordDecisionBody {
  @IsUUID()
  contactId: string;

  @IsUUID()
  pieceId: string;

  @IsIn(['approve', 'changes'])
  verdict: 'approve' | 'changes';

  @IsString()
  @MaxLength(5000)
  remark: string;

  /** how the contact said it, e.g. "by telephone, 14:20" */
  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  how: string;
}

export class RoomDecisionBody {
  @IsUUID()
  packetId: string;

  @IsUUID()
  pieceId: string;

  @IsUUID()
  versionId: string;

  @IsIn(['approve', 'changes'])
  verdict: 'approve' | 'changes';

  /** what should change, each at its place; nothing where it is approved */
  @IsArray()
  @ArrayMaxSize(50)
  @ValidateNested({ each: true })
  @Type(() => ThingBody)
  things: ThingBody[];
}

export class DecidedShape {
  outcome: 'approved' | 'changes' | null;
  round: number;
}

/** A channel as the contact will see the piece on it. */
/** Which pictures and clips are seen on a channel, and how. */
export class RoomRulesShape {
  ratio: string;
  otherShapes: string[];
  cutsMedia: boolean;
  mediaLimit: number | null;
}

export class RoomChannelShape {
  name: string;
  kind: string;
  rules: RoomRulesShape;
  copy: string;
  /** whose own copy it is; null: what channels share */
  copyOf: string | null;
  /** the copy has headings, lists and links, as docs/formats.md has them */
  isLaidOut: boolean;
  tags: string[];
  firstComment: string;
  link: string;
  /** which of the piece’s media go out here, by their digests; left away: all */
  media?: string[];
  /** how pictures are cut here, by their digests */
  crops?: Record<string, Crop>;
  on: string | null;
  at: string | null;
}

export class RoomRemarkShape {
  contactName: string;
  verdict: 'approve' | 'changes';
  remark: string;
  decidedAt: string;
}

export class RoomPieceShape {
  packetId: string;
  pieceId: string;
  versionId: string;
  title: string;
  formatName: string;
  round: number;
  roundsAgreed: number;
  outcome: 'approved' | 'changes' | null;
  /** what this contact has said of this version */
  mine: 'approve' | 'changes' | null;
  media: MediumShape[];
  disclosure: string;
  texts: ReadTextShape[];
  channels: RoomChannelShape[];
  said: RoomRemarkShape[];
  /** what was asked for in earlier rounds, and what came of it */
  remarks: RoomThreadShape[];
  /** what the agency wrote to the client beside this version */
  notes: RoomThreadShape[];
  /** this contact is asked now; where contacts are asked in turn, others may come first */
  isAsked: boolean;
}

export class RoomPacketShape {
  id: string;
  title: string;
  message: string;
  dueOn: string;
  isPastDue: boolean;
  isClosed: boolean;
  pieces: RoomPieceShape[];
}

export class RoomShape extends VisitedShape {
  contactId: string;
  contactName: string;
  canDecide: boolean;
  zone: string;
  packets: RoomPacketShape[];
  /** where something new can be asked for; null for who may not ask, or where there is no open form */
  askAddress: string | null;
  /** what is asked of the contact's knowledge */
  interviews: RoomInterviewShape[];
  deliveries: RoomDeliveryShape[];
  /** the weeks ahead and the contact's own requests; null for who may not look */
  view: RoomViewShape | null;
}

/** What stands on the client's calendar. Of what was never sent to the client no more than channel and day. */
export class RoomEntryShape {
  on: string;
  at: string;
  channelName: string;
  title: string | null;
  state: 'pencilled' | 'scheduled' | 'out';
  address: string | null;
}

export class RoomRequestShape {
  number: number;
  title: string;
  receivedAt: string;
  /** who asked, where that is somebody else of the client */
  askedBy: string | null;
  state: RequestState;
  /** its receipt, while the link is open */
  address: string | null;
}

export class RoomViewShape {
  entries: RoomEntryShape[];
  /** how many more there are in these weeks */
  more: number;
  requests: RoomRequestShape[];
}

export type { PartState };
