/** Under what name the text of a verb of the trail stands: `house-rules.changed` is `trail.verbs.house_rules_changed`. */
export const verbName = (verb: string): string => verb.replace(/[.-]/g, '_');
