import type { Verdict } from "../link";

/* What is found of an end's wiring. Words are the interface's; here stand the code, the place or lead, and its figures. */

export const WIRING_CODES = [
  // What meets what.
  "unfit",
  "dark",
  "pairs",
  "polarity",
  "volts-kind",
  // Volts.
  "no-start",
  "volts-low",
  "volts-high",
  "start-low",
  "no-wake",
  "volts-tight",
  "window-silent",
  "load-silent",
  "sheet-unknown",
  "unfed",
  // Watts.
  "port-over",
  "start-over",
  "switch-over",
  "reserved-over",
  "pass-over",
  "pass-fed",
  "power-round",
  // Leads.
  "port-gone",
  "port-taken",
  "medium-unfit",
  "cable-unknown",
  "copper-clad",
  "thin-cord",
  "too-long",
  "slow-lead",
  "slow-injector",
  "indoor-outside",
  "part-outside",
  "no-drip-loop",
  "drip-unseen",
  "near-mains",
  "gap-unseen",
  "gap-unasked",
  // Screens, protectors, earth.
  "screen-open",
  "screen-unseen",
  "screen-practice",
  "screen-unasked",
  "surge-missing",
  "surge-one",
  "surge-volts",
  "surge-pairs",
  "surge-speed",
  "surge-kind",
  "bond-open",
  "bond-unseen",
  "bar-open",
  "bar-unseen",
  "mast-open",
  "mast-unseen",
  "rod-open",
  "rod-unseen",
  "earth-unasked",
  "mains-unasked",
  "mains-specialist",
  "lightning-unasked",
  "lightning-specialist",
  "two-earths",
  // Battery and sun.
  "sun-unasked",
  "panel-small",
  "battery-small",
  "frost-charge",
  "fuse-missing",
  "cut-out-missing",
  "return-unseen",
  "return-never",
  // Network.
  "injector-turned",
  "data-loop",
  "second-router",
  "second-dhcp",
] as const;
export type WiringCode = (typeof WIRING_CODES)[number];

export interface WiringFinding {
  readonly code: WiringCode;
  readonly verdict: Exclude<Verdict, "clear">;
  /** The plan stops here until it is mended: it can harm people or gear. */
  readonly stop: boolean;
  readonly placeId: string | null;
  readonly leadId: string | null;
  readonly figures: Readonly<Record<string, number | string>>;
}

type Marks = Partial<Pick<WiringFinding, "stop" | "placeId" | "leadId" | "figures">>;

export const found = (code: WiringCode, verdict: WiringFinding["verdict"], marks: Marks = {}): WiringFinding => ({
  code,
  verdict,
  stop: false,
  placeId: null,
  leadId: null,
  figures: {},
  ...marks,
});
