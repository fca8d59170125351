import type { CopyLanguage, SignOffPolicy } from '@zesting/core';
import { AllowanceBody, ClosureBody, ContactBody, PillarBody } from './bodies.js';
import { ChannelBody } from './channel-bodies.js';
import { BrandBody } from './brand-bodies.js';

export class ChannelShape {
  id: string;
  kind: string;
  name: string;
  copyLimit: number | null;
  ratio: string;
}

export class PillarShape {
  id: string;
  name: string;
  /** its step around the twelve colours */
  colour: number;
}

export class ContactShape {
  id: string;
  name: string;
  email: string;
  canAsk: boolean;
  canSignOff: boolean;
}

export class ClientSummary {
  id: string;
  code: string;
  name: string;
  /** 0 to 11: the step on the wheel of client colours */
  colour: number;
  zone: string;
}

export class ClientShape extends ClientSummary {
  usualTime: string;
  channels: ChannelShape[];
  pillars: PillarShape[];
  contacts: ContactShape[];
}

export class FormLinkShape {
  linkId: string;
  formId: string;
  title: string;
  /** where it was handed out */
  label: string;
  /** null once it is closed */
  address: string | null;
}

/** A contact's room. Its link goes by mail only: nobody at the agency sees it, since whoever has it can decide. */
export class RoomLinkShape {
  contactId: string;
  name: string;
  email: string;
  isOpen: boolean;
}

/** The client's links. Only those who manage the client themselves see them, and not who covers for them. */
export class ClientLinksShape {
  forms: FormLinkShape[];
  rooms: RoomLinkShape[];
  feed: string | null;
}

export class ClientMadeShape {
  clientId: string;
}

/** A line of the list of clients. */
export class ClientRow extends ClientSummary {
  region: string;
  managers: string[];
  openPieces: number;
  /** pieces late, or that cannot be met */
  inDanger: number;
  contacts: number;
  archivedAt: string | null;
}

export class LogoShape {
  assetId: string;
  name: string;
  mime: string;
}

export class PersonNameShape {
  personId: string;
  name: string;
}

export class PossibleManagerShape extends PersonNameShape {
  email: string;
  /** leads see every client anyway: they decide, but are not entered as managers */
  role: 'lead' | 'manager';
}

export class DayOffShape {
  on: string;
  name: string;
}

/** The brand sheet that makers read. */
export class BrandShape extends ClientSummary {
  brand: BrandBody;
  logos: LogoShape[];
}

/** The whole of a client's page. */
/** What was taken out of a client's lists and can come back. */
export class ArchivedListsShape {
  contacts: ContactBody[];
  channels: ChannelBody[];
  pillars: PillarBody[];
}

export class ClientPageShape extends BrandShape {
  archived: ArchivedListsShape;
  region: string;
  weeklyMinutes: number[];
  usualTime: string;
  language: CopyLanguage;
  roundsAgreed: number;
  feedPencilled: boolean;
  policy: SignOffPolicy;
  allowance: AllowanceBody;
  contacts: ContactBody[];
  channels: ChannelBody[];
  pillars: PillarBody[];
  closures: ClosureBody[];
  managers: PersonNameShape[];
  /** who may manage a client, or decide for it */
  possibleManagers: PossibleManagerShape[];
  /** the region's public holidays over the next twelve months */
  holidays: DayOffShape[];
  observances: string[];
  /** the region's observances over the next twelve months */
  possibleObservances: DayOffShape[];
  archivedAt: string | null;
  version: number;
}

export class RegionShape {
  code: string;
  name: string;
}
