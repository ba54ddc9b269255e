/*
 * The steps at an end, from the risk screen to leaving clean, and what each waits for. A lock is there where the order
 * protects somebody or something: nothing is powered before it is bonded, nothing is tightened before the peak, both ends
 * are read after tightening. What does not matter may be done in any order. Ours.
 */

export const STEP_IDS = [
  "risks",
  "mount",
  "cable",
  "load",
  "bond",
  "power",
  "coarse",
  "azimuth",
  "tilt",
  "look",
  "other",
  "tighten",
  "again",
  "both",
  "photos",
  "leave",
] as const;
export type StepId = (typeof STEP_IDS)[number];

export const PARTS = [
  "read",
  "bracket",
  "finger-tight",
  "loop",
  "surge",
  "ports",
  "lug",
  "protector",
  "mast",
  "qualified",
  "told",
  "on",
  "aimed",
  "little",
  "mount",
  "plug",
  "earth",
  "along",
  "sealed",
  "label",
  "laptop",
  "clean",
] as const;
export type Part = (typeof PARTS)[number];

export interface StepDef {
  readonly id: StepId;
  /** What is ticked one by one; a step without any is done by what is read, or by the other end. */
  readonly parts: readonly Part[];
  readonly needs: readonly StepId[];
}

export interface EndPlan {
  /** False for an antenna that is not found by turning: it looks along its axis, and its level is read. */
  readonly turns: boolean;
}

/** The peak of the main lobe, or what stands for it. */
const found = ({ turns }: EndPlan): StepId[] => (turns ? ["azimuth", "tilt"] : ["look"]);

export const stepsOf = (plan: EndPlan): readonly StepDef[] => [
  { id: "risks", parts: ["read"], needs: [] },
  { id: "mount", parts: ["bracket", "finger-tight"], needs: ["risks"] },
  { id: "cable", parts: ["loop", "surge"], needs: ["risks"] },
  { id: "load", parts: ["ports"], needs: ["mount"] },
  { id: "bond", parts: ["lug", "protector", "mast", "qualified"], needs: ["mount"] },
  { id: "power", parts: ["told", "on"], needs: ["mount", "cable", "load", "bond"] },
  { id: "coarse", parts: ["aimed"], needs: ["mount"] },
  ...(plan.turns
    ? ([
        { id: "azimuth", parts: [], needs: ["power", "coarse"] },
        { id: "tilt", parts: [], needs: ["azimuth"] },
      ] as const)
    : ([{ id: "look", parts: [], needs: ["power", "coarse"] }] as const)),
  { id: "other", parts: [], needs: ["power"] },
  { id: "tighten", parts: ["little"], needs: [...found(plan), "other"] },
  { id: "again", parts: [], needs: ["tighten"] },
  { id: "both", parts: [], needs: ["again"] },
  { id: "photos", parts: ["mount", "plug", "earth", "along"], needs: ["mount"] },
  { id: "leave", parts: ["sealed", "label", "laptop", "clean"], needs: ["both", "photos"] },
];

/** The step that says that an end's antenna stands on its peak. */
export const foundStep = (plan: EndPlan): StepId => (plan.turns ? "tilt" : "look");

/** A step and all that rests on it: what falls when it is taken back. */
export const restingOn = (steps: readonly StepDef[], id: StepId): ReadonlySet<StepId> => {
  const fallen = new Set<StepId>([id]);
  // In order: what a step needs stands before it.
  for (const s of steps) if (s.needs.some((n) => fallen.has(n))) fallen.add(s.id);
  return fallen;
};
