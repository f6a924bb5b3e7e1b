import { type Finding, type Rule, type Setup } from './finding';
import { PEOPLE_RULES } from './peopleRules';
import { LIMIT_RULES } from './limitRules';
import { PLAN_RULES } from './planRules';
import { ROOM_RULES } from './roomRules';

export * from './finding';

/** Every rule, in the order of the work. */
export const RULES: readonly Rule[] = [...PLAN_RULES, ...PEOPLE_RULES, ...ROOM_RULES, ...LIMIT_RULES];

const ORDER = { stops: 0, warns: 1, advises: 2 };

/** Reads a whole set-up and says what is wrong, missing or contradictory: the gravest first. */
export function check(setup: Setup): Finding[] {
  return RULES.flatMap((rule) =>
    rule.find(setup).map(({ key, level, text, series, session, fix }): Finding => ({
      id: key === undefined ? rule.id : `${rule.id}:${key}`,
      rule: rule.id,
      level: level ?? rule.level,
      stage: rule.stage,
      text,
      ...(series === undefined ? {} : { series }),
      ...(session === undefined ? {} : { session }),
      ...(fix === undefined ? {} : { fix }),
    })),
  ).sort((a, b) => ORDER[a.level] - ORDER[b.level]);
}
