import type { Rule } from '../finding.ts';
import { alikeRules } from './alike_rules.ts';
import { elementRules } from './element_rules.ts';
import { wordRules } from './word_rules.ts';

/** What can be wrong with screens as they came in; what makes the pile smaller stands first. */
export const intakeRules: readonly Rule[] = [...alikeRules, ...elementRules, ...wordRules];
