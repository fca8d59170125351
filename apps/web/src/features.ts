import { feature as agency } from './features/agency';
import { feature as calendar } from './features/calendar';
import { feature as campaigns } from './features/campaigns';
import { feature as clients } from './features/clients';
import { feature as desk } from './features/desk';
import { feature as duties } from './features/duties';
import { feature as goals } from './features/goals';
import { feature as goingOut } from './features/going-out';
import { feature as guidelines } from './features/guidelines';
import { feature as intake } from './features/intake';
import { feature as interviews } from './features/interviews';
import { feature as library } from './features/library';
import { feature as links } from './features/links';
import { feature as people } from './features/people';
import { feature as plan } from './features/plan';
import { feature as planning } from './features/planning';
import { feature as production } from './features/production';
import { feature as signOff } from './features/sign-off';
import { feature as spinOffs } from './features/spin-offs';
import { feature as topics } from './features/topics';
import type { WebFeature } from './lib/feature';
import { addVerbs } from './lib/verbs';

/** The features of the interface, in the order in which finding offers what they can do. A new one is its folder, and a line here. */
export const FEATURES: readonly WebFeature[] = [
  desk,
  plan,
  topics,
  interviews,
  goals,
  campaigns,
  duties,
  intake,
  signOff,
  production,
  spinOffs,
  library,
  calendar,
  goingOut,
  agency,
  clients,
  people,
  planning,
  guidelines,
  links,
];

for (const { verbs } of FEATURES) if (verbs) addVerbs(verbs);
