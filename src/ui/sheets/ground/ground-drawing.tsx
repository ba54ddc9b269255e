"use client";
import { Trouble } from "../../frame/trouble";
import { GroundHead } from "./ground-head";
import type { OpenGround } from "./use-open-ground";

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
    <div
      ref={ground.target}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: an application takes the keys itself.
      tabIndex={0}
      role="application"
      aria-label="Ground: plan drawing. Arrow keys move it, plus and minus zoom."
      className="map absolute inset-0"
      data-testid="map"
    />
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
