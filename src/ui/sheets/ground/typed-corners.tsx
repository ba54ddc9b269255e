"use client";
import { useState } from "react";
import type { LatLon } from "@/core/geo";
import { readPosition } from "../../api/position";
import type { DrawShape } from "../../map/ground-tools";

const LEAST: Readonly<Record<DrawShape, number>> = { point: 1, line: 2, polygon: 3 };

/** Corners typed as positions, one a line: drawing without the pointer, or from a list. */
export const TypedCorners = ({ shape, onTyped }: { shape: DrawShape; onTyped: (points: readonly LatLon[]) => void }) => {
  const [text, setText] = useState("");
  const [fault, setFault] = useState<string | null>(null);
  const take = async (): Promise<void> => {
    const points: LatLon[] = [];
    for (const [i, line] of text.split("\n").entries()) {
      if (line.trim() === "") continue;
      const p = await readPosition(line);
      if ("error" in p) {
        setFault(`Line ${i + 1}, "${line.trim().slice(0, 40)}", is no latitude and longitude.`);
        return;
      }
      points.push(p);
    }
    if (points.length < LEAST[shape]) setFault(`It needs at least ${LEAST[shape]} ${LEAST[shape] === 1 ? "position" : "positions"}.`);
    else {
      setFault(null);
      onTyped(shape === "point" ? points.slice(0, 1) : points);
    }
  };
  return (
    <details className="col-span-2 border-t border-rule pt-1.5">
      <summary className="cursor-pointer">Type its corners</summary>
      <label className="field pt-1.5">
        <span>Latitude, longitude, one corner a line</span>
        <textarea
          rows={4}
          className="border border-rule bg-paper p-1.5 font-mono text-line"
          value={text}
          placeholder="47.3000 N, 19.4000 W"
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      {fault !== null && (
        <p role="alert" className="m-0 text-short-figure">
          {fault}
        </p>
      )}
      <button type="button" className="press mt-1.5" onClick={() => void take()}>
        Draw it
      </button>
    </details>
  );
};
