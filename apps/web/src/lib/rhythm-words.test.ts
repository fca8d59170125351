import { rhythmWords } from './rhythm-words';

describe('a rule in words', () => {
  it.each([
    ['FREQ=DAILY', 'Every day'],
    ['FREQ=DAILY;INTERVAL=2', 'Every other day'],
    ['FREQ=WEEKLY;BYDAY=TU', 'Tuesday'],
    ['FREQ=WEEKLY;BYDAY=TU,TH', 'Tuesday and Thursday'],
    ['FREQ=WEEKLY;BYDAY=MO,WE,FR', 'Monday, Wednesday and Friday'],
    ['FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', 'Monday to Friday'],
    ['FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR,SA,SU', 'Every day'],
    ['FREQ=WEEKLY;INTERVAL=2;BYDAY=SA', 'Saturday, every other week'],
    ['FREQ=WEEKLY;INTERVAL=3;BYDAY=SA', 'Saturday, every 3 weeks'],
    ['FREQ=MONTHLY;BYMONTHDAY=1', 'The 1st of every month'],
    ['FREQ=MONTHLY;BYMONTHDAY=12', 'The 12th of every month'],
    ['FREQ=MONTHLY;INTERVAL=2;BYMONTHDAY=23', 'The 23rd of every other month'],
    ['FREQ=MONTHLY;BYMONTHDAY=-1', 'The last day of every month'],
    ['FREQ=MONTHLY;BYDAY=-1FR', 'The last Friday of every month'],
    ['FREQ=MONTHLY;INTERVAL=6;BYDAY=2MO', 'The second Monday of every 6 months'],
    ['FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO', 'FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO'],
  ])('%s', (rule, words) => expect(rhythmWords(rule)).toBe(words));
});
