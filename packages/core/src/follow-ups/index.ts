/** What comes due by itself after work: a second look at joints that were opened, and at a new belt. */
export {
  admitLook,
  BELT_DAYS,
  BELT_HOURS,
  followUpFindings,
  followUpKinds,
  followUpsOf,
  followUpText,
  FORGOTTEN_DAYS,
  isBelt,
  JOINT_DAYS,
  type FollowUp,
  type FollowUpFinding,
  type FollowUpKind,
  type OpeningWork,
  type SecondLook,
} from './follow-ups.js';
export { bringBackSteps, STOOD_DAYS, stoodSince, type BringBackStep } from './bring-back.js';
