export type FoundKind = 'piece' | 'request' | 'client' | 'person' | 'contact' | 'idea' | 'campaign';

/** One thing that was found, with the address in the application where it stands. */
export class FoundShape {
  kind: FoundKind;
  id: string;
  title: string;
  /** what tells it from others of that name */
  note: string;
  path: string;
  clientId: string | null;
}

export class FindShape {
  items: FoundShape[];
}
