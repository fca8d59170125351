/** A day of note that a client may take. */
export class ObservanceShape {
  on: string;
  name: string;
  subjects: string[];
  /** the region's, an international day, or one that was added */
  from: 'region' | 'world' | 'own';
  /** of one that was added */
  ownId: string | null;
  /** whether it was added for all clients */
  isOfAll: boolean;
  isTaken: boolean;
  /** words that it has in common with the client's pillars and topics */
  fit: string[];
}

export class ObservancesShape {
  /** over the next twelve months, by date */
  observances: ObservanceShape[];
  /** whether there are pillars or topics to hold them against */
  pillars: boolean;
}

export class ObservanceMadeShape {
  observanceId: string;
}
