import type english from '../en/index.ts';
import common from './common.json' with { type: 'json' };
import frame from './frame.json' with { type: 'json' };
import items from './items.json' with { type: 'json' };
import meetings from './meetings.json' with { type: 'json' };
import letters from './messages.json' with { type: 'json' };
import people from './people.json' with { type: 'json' };
import sharing from './sharing.json' with { type: 'json' };

/** The same in Portuguese, as in Lisbon. A text that is missing here doesn't compile. */
const portuguese: typeof english = {
  ...common,
  ...frame,
  ...items,
  ...letters,
  ...meetings,
  ...people,
  ...sharing,
};
export default portuguese;
