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
  title: string;
  address: string;
}

export class RoomLinkShape {
  contactId: string;
  name: string;
  address: string;
}

/** The client's personal links. Only those who manage the client see them. */
export class ClientLinksShape {
  forms: FormLinkShape[];
  rooms: RoomLinkShape[];
  feed: string;
}
