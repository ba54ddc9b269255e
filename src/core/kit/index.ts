export { type FixingLoad, fixingLoad, gustOfMean, ladderFor, ladderM } from "./fixings";
export { KIT_PLACES, KIT_RULES, type KitFact, type KitLine, type KitPlace, kitLines } from "./kit";
export { lineId } from "./line-id";
export { centsText, paybackMonths, quoteOf } from "./money";
export { type JudgedRisk, judgeScreen, RISKS, type Risk, type RiskAnswer } from "./screen";
