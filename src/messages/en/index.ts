import common from './common.json' with { type: 'json' };
import frame from './frame.json' with { type: 'json' };
import items from './items.json' with { type: 'json' };
import meetings from './meetings.json' with { type: 'json' };
import letters from './messages.json' with { type: 'json' };
import people from './people.json' with { type: 'json' };
import sharing from './sharing.json' with { type: 'json' };

/** Every text of the product in English: an area's in a file of its own. */
const english = { ...common, ...frame, ...items, ...letters, ...meetings, ...people, ...sharing };
export default english;
