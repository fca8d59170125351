import type { DeskRow } from '@zesting/contract';
import { count, dayWords } from '../../lib/format';

const late = (row: DeskRow): string => (row.slackDays !== null && row.slackDays < 0 ? `${count(-row.slackDays, 'working day')} short` : '');

function lateWords(late: DeskRow['late']): string | null {
  if (!late) return null;
  const behind = late.behindSteps > 0 ? `, behind ${count(late.behindSteps, 'step')}` : '';
  return `${late.step} (${late.doer ?? 'nobody yet'}) is needed ${dayWords(late.latestFinishOn)}, predicted ${dayWords(late.predictedFinishOn)}${behind}`;
}

/** Why a piece stands on its list, in one sentence with its figures. */
export function reasonOf(row: DeskRow): string {
  const step = row.currentStep ?? 'The next step';
  const who = row.currentDoer ?? 'nobody yet';
  const stands = row.waitsForWord
    ? 'Checked and ready, but not sent to the client yet'
    : `${step} ${step.includes(', ') ? 'are' : 'is'} with ${who}`;
  switch (row.list) {
    case 'trouble':
      if (row.trouble === 'unsure') return 'The channel does not say whether it is out';
      if (row.trouble === 'failed') return 'It did not go out by itself';
      return `Its time passed${row.aimOn ? ` on ${dayWords(row.aimOn)}` : ''} and it is not marked as out`;
    case 'out_of_reach':
      return `${step} (${who}) cannot end in time: ${late(row)}${row.earliestPublishOn ? `; ${dayWords(row.earliestPublishOn)} can be met` : ''}`;
    case 'overdue':
      return `${step} (${who}) should be done: ${late(row)}${row.earliestPublishOn ? `; ${dayWords(row.earliestPublishOn)} can be met` : ''}`;
    case 'changed_after_sign_off':
      return 'What the client signed was edited since: it needs their word again';
    case 'returned':
      return `Round ${row.round}: ${step} is with ${who}`;
    case 'will_be_late':
      return lateWords(row.late) ?? `${step} (${who}) is predicted to end after its latest day`;
    case 'no_doer':
      return `${step} could start${row.lateFromOn ? ` and must by ${dayWords(row.lateFromOn)}` : ''}; nobody has it`;
    case 'to_be_asked':
      return `${step} is the client’s to bring${row.lateFromOn ? `, asked by ${dayWords(row.lateFromOn)} at the latest` : ''}; nobody has asked`;
    case 'with_client_past_due':
      if (row.packetDueOn === null && row.materialDueOn) return `${step} was to come from the client by ${dayWords(row.materialDueOn)}`;
      return `An answer was due${row.packetDueOn ? ` on ${dayWords(row.packetDueOn)}` : ''}`;
    case 'to_be_sent':
      return row.waitsForWord
        ? `${stands}${row.aimOn ? `; it is to be out on ${dayWords(row.aimOn)}` : ''}`
        : 'Checked and ready: it waits for the agency’s approval';
    case 'signed_undated':
      return 'Signed and ready: it has no date yet';
    case 'with_client':
      return `An answer is due${row.packetDueOn ? ` on ${dayWords(row.packetDueOn)}` : ' soon'}`;
    case 'undated':
      return `${stands}; no date is set`;
    default:
      return `${stands}${row.slackDays === null ? '' : `; ${count(row.slackDays, 'day')} of slack`}`;
  }
}

/** The one click: its words and its place. */
export function actionOf(row: DeskRow, code: string): { words: string; path: string } {
  const piece = `/pieces/${row.id}`;
  const goingOut = `/calendar/going-out${code ? `?client=${code}` : ''}`;
  const month = row.aimOn?.slice(0, 7);
  const calendar = `/calendar?placement=${row.placementId ?? ''}${month ? `&month=${month}` : ''}${code ? `&client=${code}` : ''}`;
  switch (row.list) {
    case 'trouble':
      if (row.trouble === 'unsure') return { words: 'Say which', path: goingOut };
      return row.trouble === 'failed' ? { words: 'Send again', path: goingOut } : { words: 'Mark or move', path: calendar };
    case 'signed_undated':
      return { words: 'Give it a date', path: calendar };
    case 'changed_after_sign_off':
      return { words: 'Send again', path: `/sign-off?piece=${row.id}&client=${code}` };
    case 'to_be_asked':
      return { words: 'Ask for it', path: `${piece}#path` };
    case 'with_client':
    case 'with_client_past_due':
      if (row.packetDueOn === null && row.materialDueOn) return { words: 'Ask again', path: `${piece}#path` };
      return { words: 'See the packet', path: `/sign-off?client=${code}` };
    case 'will_be_late':
      return { words: 'Reassign', path: `${piece}#path` };
    case 'no_doer':
      return { words: 'Assign', path: `${piece}#path` };
    case 'out_of_reach':
    case 'overdue':
      return { words: 'See what gives', path: `${piece}#path` };
    default:
      return row.waitsForWord
        ? { words: 'Send to client', path: `/sign-off?piece=${row.id}&client=${code}` }
        : { words: 'Open', path: piece };
  }
}
