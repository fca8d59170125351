import type { MaterialSort } from '@zesting/core';
import { UploadShape } from '../intake/index.js';

export class MaterialShape {
  id: string;
  sort: MaterialSort;
  label: string;
  /** one of the three */
  file: UploadShape | null;
  url: string | null;
  text: string | null;
  /** who put it there */
  by: string;
  isFromClient: boolean;
  at: string;
  /** the step for which the client brought it */
  stepId: string | null;
  /** stands in the content too, and so goes out */
  isInContent: boolean;
}

/** What the client was asked to bring for a step. */
export class DeliveryShape {
  stepId: string;
  stepTitle: string;
  contactId: string;
  contactName: string;
  words: string;
  dueOn: string;
  isPastDue: boolean;
  askedBy: string;
  askedAt: string;
  /** how often it was asked */
  times: number;
  /** when everything was there, and who said so; null while it is awaited */
  broughtAt: string | null;
  broughtBy: string | null;
  broughtWords: string;
}

export class MaterialOfPieceShape {
  material: MaterialShape[];
  deliveries: DeliveryShape[];
}

export class MaterialMadeShape {
  materialId: string;
}

/** What asking a client for material begins with. */
export class AskMaterialShape {
  contacts: { id: string; name: string }[];
  /** who is asked first; null where the client has no contact */
  contactId: string | null;
  words: string;
  dueOn: string;
  /** what else the client could bring and was not asked for */
  others: { stepId: string; stepTitle: string; pieceTitle: string; dueOn: string }[];
}

/** What a contact brought so far. */
export class BroughtShape {
  id: string;
  label: string;
  file: UploadShape | null;
  url: string | null;
  text: string | null;
}

/** What the agency waits for, as the contact sees it. */
export class RoomDeliveryShape {
  stepId: string;
  title: string;
  pieceTitle: string;
  words: string;
  dueOn: string;
  isPastDue: boolean;
  broughtAt: string | null;
  brought: BroughtShape[];
}
