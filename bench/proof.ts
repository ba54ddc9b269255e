// What the verdicts are worth, printed: the chance against 4,000 draws, jumps at steps of 1 % of F1, links told from the other end.
import { largestJump } from "../src/core/testing/jumps";
import { chanceOnScene, mirrorFaults } from "../src/core/testing/proofs";

const SCENES = 200;
const LINKS = 400;
/** Figures of the same questions before bodies were screens and the chance was drawn. */
const BEFORE = { chance: "37 in 100 off at the wall aside (0.99 told, 0.62 drawn)", jump: "15.6 dB at a move of 4 cm", mirror: "6.3 dB" };

const say = (what: string, now: string, before: string): void => console.log(`${what.padEnd(62)}${now.padEnd(44)}before: ${before}`);

const errors = Array.from({ length: SCENES }, (_, i) => chanceOnScene(i + 1)).map(({ told, drawn }) => Math.abs(told - drawn));
const mean = errors.reduce((s, e) => s + e, 0) / SCENES;
say(
  `chance told against 4,000 draws, ${SCENES} scenes`,
  `worst ${(100 * Math.max(...errors)).toFixed(1)}, mean ${(100 * mean).toFixed(2)} in 100 off`,
  BEFORE.chance,
);
for (const bodies of [1, 2, 3]) {
  const jumps = Array.from({ length: 40 }, (_, i) => largestJump(1000 * bodies + i, bodies, bodies === 1 ? 0 : 2));
  const largest = jumps.reduce((a, b) => (b.db > a.db ? b : a));
  say(
    `jumps at 1 % of F1, 40 scenes of ${bodies}, six kinds of move`,
    `largest ${largest.db.toFixed(2)} dB, ${jumps.filter((j) => j.db > 0.3).length} over 0.3 dB`,
    BEFORE.jump,
  );
}
const faults = Array.from({ length: LINKS }, (_, i) => mirrorFaults(i + 1)).flat();
say(
  `${LINKS} links told from the other end`,
  faults.length === 0 ? "all 17 figures and the verdict the same" : faults.join("; "),
  BEFORE.mirror,
);
