-- Meetings somebody declined, or proposed another time for: the Desk looks for them in every calendar it reads.
CREATE INDEX meeting_in_doubt ON meeting (calendar_id)
  WHERE part = 'organiser' AND (instr(state, '"answer":"declined"') > 0 OR instr(state, '"counters":[{') > 0);
