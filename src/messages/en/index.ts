import absences from './absences.json' with { type: 'json' };
import common from './common.json' with { type: 'json' };
import contacts from './contacts.json' with { type: 'json' };
import days from './days.json' with { type: 'json' };
import desk from './desk.json' with { type: 'json' };
import frame from './frame.json' with { type: 'json' };
import items from './items.json' with { type: 'json' };
import meetings from './meetings.json' with { type: 'json' };
import letters from './messages.json' with { type: 'json' };
import people from './people.json' with { type: 'json' };
import sharing from './sharing.json' with { type: 'json' };
import tasks from './tasks.json' with { type: 'json' };
import timeUse from './time-use.json' with { type: 'json' };

/** Every text of the product in English: an area's in a file of its own. */
const english = {
  ...absences,
  ...common,
  ...contacts,
  ...days,
  ...desk,
  ...frame,
  ...items,
  ...letters,
  ...meetings,
  ...people,
  ...sharing,
  ...tasks,
  ...timeUse,
};
export default english;
