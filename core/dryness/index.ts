export { FEEL_QUESTIONS, judgeFeel, type FeelAnswer, type FeelCheck, type FeelJudgement, type FeelQuestion, type FeelVote } from './feel'
export { isConstantWeight, type ConstantWeight } from './constantWeight'
export {
  JAR_AIR_HOURS,
  judgeDryness,
  REST_DAYS,
  VERDICT_WORDS,
  type DrynessEvidence,
  type DrynessVerdict,
  type VerdictAsk,
  type VerdictLevel,
  type Witness,
} from './verdict'
export { HOT_START, hotHoursAllowed, hotStartC, isHot, type HardeningInput } from './hardening'
