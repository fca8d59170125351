import { feature as agency } from './features/agency/feature.js';
import { feature as askedPages } from './features/asked-pages/feature.js';
import { feature as calendar } from './features/calendar/feature.js';
import { feature as campaigns } from './features/campaigns/feature.js';
import { feature as clients } from './features/clients/feature.js';
import { feature as duties } from './features/duties/feature.js';
import { feature as embargoes } from './features/embargoes/feature.js';
import { feature as evergreen } from './features/evergreen/feature.js';
import { feature as find } from './features/find/feature.js';
import { feature as followUps } from './features/follow-ups/feature.js';
import { feature as goals } from './features/goals/feature.js';
import { feature as goingOut } from './features/going-out/feature.js';
import { feature as guidelinePictures } from './features/guideline-pictures/feature.js';
import { feature as guidelines } from './features/guidelines/feature.js';
import { feature as hours } from './features/hours/feature.js';
import { feature as identity } from './features/identity/feature.js';
import { feature as intake } from './features/intake/feature.js';
import { feature as interviews } from './features/interviews/feature.js';
import { feature as keptFiles } from './features/kept-files/feature.js';
import { feature as library } from './features/library/feature.js';
import { feature as material } from './features/material/feature.js';
import { feature as money } from './features/money/feature.js';
import { feature as notices } from './features/notices/feature.js';
import { feature as obstacles } from './features/obstacles/feature.js';
import { feature as people } from './features/people/feature.js';
import { feature as plan } from './features/plan/feature.js';
import { feature as planning } from './features/planning/feature.js';
import { feature as production } from './features/production/feature.js';
import { feature as remarks } from './features/remarks/feature.js';
import { feature as sending } from './features/sending/feature.js';
import { feature as signOff } from './features/sign-off/feature.js';
import { feature as spinOffs } from './features/spin-offs/feature.js';
import { feature as staffing } from './features/staffing/feature.js';
import { feature as teamNotes } from './features/team-notes/feature.js';
import { feature as topics } from './features/topics/feature.js';
import { feature as views } from './features/views/feature.js';
import { feature as writingAid } from './features/writing-aid/feature.js';
import type { Feature } from './platform/feature.js';

/** The features that Zesting is made of. A new one is its folder, and a line here. */
export const FEATURES: readonly Feature[] = [
  identity,
  agency,
  notices,
  clients,
  people,
  intake,
  planning,
  production,
  remarks,
  material,
  signOff,
  calendar,
  askedPages,
  goingOut,
  sending,
  followUps,
  library,
  keptFiles,
  spinOffs,
  embargoes,
  evergreen,
  plan,
  topics,
  interviews,
  goals,
  campaigns,
  duties,
  teamNotes,
  obstacles,
  guidelines,
  guidelinePictures,
  hours,
  money,
  staffing,
  views,
  writingAid,
  find,
];
