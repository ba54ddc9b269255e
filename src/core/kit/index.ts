export { type FixingLoad, fixingLoad, gustOfMean, ladderFor, ladderM, poleKg } from "./fixings";
export { KIT_PLACES, KIT_RULES, type KitFact, type KitLine, type KitPlace, kitLines } from "./kit";
export { lineId } from "./line-id";
export { amountCents, centsText, customerQuote, paybackMonths, type Quote, quoteOf } from "./money";
export { type JudgedRisk, judgeScreen, RISKS, type Risk, type RiskAnswer } from "./screen";
