-- What tokens did is listed by the names of routes, some of which are called otherwise now.
UPDATE token_act SET act = CASE act
  WHEN 'makeAsk' THEN 'requestAccess'
  WHEN 'answerAsk' THEN 'answerAccessRequest'
  WHEN 'nudgeAsk' THEN 'remindOfAccessRequest'
  WHEN 'takeBackAsk' THEN 'withdrawAccessRequest'
  WHEN 'keepLanes' THEN 'saveLanes'
  WHEN 'saveKeeps' THEN 'saveTimePreferences'
  WHEN 'sayHands' THEN 'setOperator'
  ELSE act
END;
