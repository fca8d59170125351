export { CAN_LEAD, canLead, leadOf, managersOf } from './managers.js';
export { NoticesModule } from './notices.module.js';
export { awaitedOf, sendReminders } from './reminders.js';
export { sendRoundUps } from './round-ups.js';
export { hello, noteReminder, quietHours, tell, tellManagers, tellMove, dueAt, putOff, tellOutside, untell, type Notice } from './tell.js';
