/** A mail to a client’s request address that did not become a request by itself. */
export class MailRow {
  id: string;
  clientId: string;
  fromName: string;
  fromEmail: string;
  subject: string;
  /** its beginning, plain */
  text: string;
  /** names of what came with it */
  files: string[];
  receivedAt: string;
  state: 'waiting' | 'left' | 'automatic';
  /** why it waits: no contact has this address, the contact may not ask, it answers somebody else’s request, more answers came than are taken */
  reason: 'unknown_sender' | 'may_not_ask' | 'other_sender' | 'too_many' | null;
  /** the title of the request that it answers */
  answers: string | null;
}

export class MailPage {
  items: MailRow[];
  nextCursor: string | null;
}

/** Where a client’s people send what they ask for. */
export class RequestAddressShape {
  clientId: string;
  address: string;
}
