export { remindDue } from './remind.ts';
export { listReminders, reminderFor, settleReminder } from './shown.ts';
export { listReminderWishes, readItemReminder, setItemReminder, setReminderWish } from './wishes.ts';
