"use client";
import { lazyPart } from "../../controls/lazy-part";
import { Trouble } from "../../frame/trouble";
import { GroundHead } from "./ground-head";
import type { OpenGround } from "./use-open-ground";

/** What draws the plan is the largest part of the page: the links and their verdicts do not wait for it. */
const PlanMap = lazyPart(() => import("./plan-map").then((m) => m.PlanMap));

/** The plan drawing, with what is known of the ground over it. A file dropped on it is brought in. */
export const GroundDrawing = ({ ground }: { ground: OpenGround }) => (
  <section
    aria-label="Drawing"
    className="ground-area relative min-h-0"
    onDragOver={(e) => e.preventDefault()}
    onDrop={(e) => {
      e.preventDefault();
      const file = e.dataTransfer.files[0];
      if (file !== undefined) ground.drop(file);
    }}
  >
    <PlanMap ground={ground} />
    <GroundHead
      knowledge={ground.knowledge}
      units={ground.units}
      mode={ground.mode}
      enter={ground.enter}
      reach={ground.reach}
      declinationAt={ground.declinationAt}
      bringIn={() => ground.openDrawer("import")}
      fitAll={ground.onMap.fitAll}
      inView={{ shown: ground.inView.shown.length, total: ground.inView.total }}
    />
    {ground.mapTrouble !== null && (
      <div className="absolute inset-x-10 top-24 border border-short bg-paper">
        <Trouble error={ground.mapTrouble} waiting="" />
      </div>
    )}
  </section>
);
