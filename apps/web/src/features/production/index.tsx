import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const ProductionPage = lazyPage(() => import('./production-page'), 'ProductionPage');
const LinePage = lazyPage(() => import('./line/line-page'), 'LinePage');
const SheetPage = lazyPage(() => import('./sheet/sheet-page'), 'SheetPage');
const LoadPage = lazyPage(() => import('./load/load-page'), 'LoadPage');
const ProposePage = lazyPage(() => import('./load/propose-page'), 'ProposePage');
const CopyPage = lazyPage(() => import('./copy/copy-page'), 'CopyPage');
const StagesPage = lazyPage(() => import('./stages/stages-page'), 'StagesPage');
const MakePage = lazyPage(() => import('./make/make-page'), 'MakePage');
const SittingPage = lazyPage(() => import('./make/sitting-page'), 'SittingPage');
const VersionsPage = lazyPage(() => import('./versions/versions-page'), 'VersionsPage');
const RemarksPage = lazyPage(() => import('./remarks/remarks-page'), 'RemarksPage');
const PiecePage = lazyPage(() => import('./piece-page'), 'PiecePage');

export const feature: WebFeature = {
  name: 'production',
  routes: [
    { path: 'production', element: <ProductionPage /> },
    { path: 'production/sheet', element: <SheetPage /> },
    { path: 'production/line', element: <LinePage /> },
    { path: 'production/load', element: <LoadPage /> },
    { path: 'production/load/propose', element: <ProposePage /> },
    { path: 'production/copy', element: <CopyPage /> },
    { path: 'production/stages', element: <StagesPage /> },
    { path: 'production/make', element: <MakePage /> },
    { path: 'production/make/sitting', element: <SittingPage /> },
    { path: 'pieces/:pieceId', element: <PiecePage /> },
    { path: 'pieces/:pieceId/versions', element: <VersionsPage /> },
    { path: 'pieces/:pieceId/remarks', element: <RemarksPage /> },
  ],
  actions: (session) => [
    ...(session.role === 'freelance' ? [] : [go('Production', '/production')]),
    ...(manages(session) ? [go('Production as a sheet', '/production/sheet', 'table, groups, many at once, spreadsheet, CSV')] : []),
    ...(manages(session) ? [go('Production over days', '/production/line', 'line, bars, slack')] : []),
    ...(manages(session) ? [go('Everybody’s load', '/production/load', 'hours, days, who is over-full')] : []),
    ...(manages(session) ? [go('Propose doers', '/production/load/propose', 'staffing, who takes what nobody has')] : []),
    ...(manages(session)
      ? [go('A client’s copy, one below another', '/production/copy', 'captions, tags, first comments, spreadsheet')]
      : []),
    go('To make, one after another', '/production/make', 'counts, batches, scripts, recordings'),
    ...(manages(session) ? [go('Begin a piece', '/production?open=begin', 'by hand, without a request')] : []),
  ],
  verbs: {
    'step.chased': 'chased',
    'piece.created': 'made the piece',
    'piece.evergreen': 'put it into the evergreen stock',
    'piece.evergreen_ended': 'took it out of the evergreen stock',
    'piece.embargo': 'said when it may be out',
    'piece.embargo_lifted': 'lets it be out on any day',
    'piece.taken_along': 'took it along with its route',
    'piece.edited': 'changed the piece',
    'piece.content_edited': 'edited the content',
    'piece.wordings_thought_of': 'thought of other wordings',
    'piece.version_brought_back': 'brought back an earlier version',
    'piece.sent': 'sent it to the client',
    'piece.approved': 'approved it',
    'piece.changes_asked': 'asked for changes',
    'step.assigned': 'assigned a step',
    'step.taken_with': 'said who takes a step together with its doer',
    'step.checklist_set': 'changed the checklist of a step',
    'step.ticked': 'ticked a line of its checklist',
    'step.tick_taken_back': 'took back a tick of its checklist',
    'step.begun': 'began',
    'step.accepted': 'took on',
    'step.turned_down': 'turned down',
    'step.worked': 'worked on',
    'step.hours_taken_back': 'took back hours of',
    'step.remaining_said': 'said how much work is left in',
    'step.handed_in': 'handed in',
    'step.passed': 'passed',
    'step.handed_back': 'handed back',
    'step.left_out': 'left out',
    'step.brought_back': 'brought back',
    'step.added': 'added to the path',
    'step.split': 'split',
    'step.retimed': 'gave other days and hours to',
    'step.pinned': 'pinned the finish of',
    'step.unpinned': 'took away the pin of',
    'material.added': 'added to the material',
    'material.removed': 'took from the material',
    'material.restored': 'put back into the material',
    'material.asked': 'asked the client to bring',
    'material.asked_again': 'asked the client again for',
    'material.brought': 'says it has come:',
    'obstacle.raised': 'said what stands in the way',
    'obstacle.changed': 'changed what stands in the way',
    'obstacle.settled': 'said that it is out of the way',
    'piece.commented': 'wrote to the team',
    'brief.added_to': 'added to the brief',
    'remark.made': 'remarked',
    'remark.replied': 'said something to a remark',
    'remark.removed': 'took back a remark',
    'remark.settled': 'settled a remark',
    'remark.answered': 'answered a remark',
    'remark.open': 'took a remark up again',
    'note.edited': 'changed what they wrote',
    'note.removed': 'took back what was written',
  },
};
