import { IsEmail, IsString, MaxLength } from 'class-validator';

export class SignInBody {
  @IsEmail()
  @MaxLength(200)
  email: string;

  @IsString()
  @MaxLength(200)
  password: string;
}

export class MarkerKindShape {
  id: string;
  name: string;
}

export class AgencyShape {
  name: string;
  zone: string;
  region: string;
  /** kinds of markers of its own */
  markerKinds: MarkerKindShape[];
}

export class SessionShape {
  personId: string;
  name: string;
  role: 'lead' | 'manager' | 'staff' | 'freelance';
  zone: string;
  /** the person's date now */
  todayOn: string;
  agency: AgencyShape;
}

/** A browser that somebody is signed in with. */
export class DeviceShape {
  id: string;
  /** e.g. `Firefox on Windows`; what cannot be told from what the browser says of itself is left out */
  program: string;
  address: string;
  signedInAt: string;
  /** when a page was last opened there; null: not since signing in */
  seenAt: string | null;
  endsAt: string;
  isThis: boolean;
}

/** How many things wait at a station, and how old the oldest is. */
export class StationShape {
  count: number;
  oldestDays: number | null;
  limitDays: number;
}

export class StationsShape {
  requests: StationShape;
  production: StationShape;
  signOff: StationShape;
  calendar: StationShape;
}

export class ForgottenBody {
  @IsEmail()
  @MaxLength(200)
  email: string;
}

export class LinkBody {
  @IsString()
  @MaxLength(100)
  token: string;
}

export class OpenedLinkShape {
  linkId: string;
}

export class HealthShape {
  status: 'ok' | 'failing';
  database: boolean;
  jobs: boolean;
  version: string;
  /** names the key that sign-off records are signed with, to be compared with the one a record states */
  recordKey: string;
}

export class ClockBody {
  /** an ISO instant; empty puts the clock back to where it began */
  @IsString()
  @MaxLength(40)
  now: string;
}
