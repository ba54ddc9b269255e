"use client";
import { useEffect, useState } from "react";
import { bearingText, figure } from "../../wording/numbers";

/** Read beside steel and held by hand: never better than this. */
const ERROR_DEG = 10;

interface Orientation extends DeviceOrientationEvent {
  readonly webkitCompassHeading?: number;
}
interface Asking {
  readonly requestPermission?: () => Promise<"granted" | "denied">;
}

/** Where the phone's upper edge points, degrees from magnetic north; null for a reading that is not held against north. */
export const headingOf = (e: Pick<Orientation, "absolute" | "alpha" | "webkitCompassHeading">): number | null => {
  if (typeof e.webkitCompassHeading === "number") return e.webkitCompassHeading;
  return e.absolute && e.alpha !== null ? (360 - e.alpha) % 360 : null;
};

/** From -180 to 180: right is positive. */
const offBy = (fromDeg: number, toDeg: number): number => ((((toDeg - fromDeg + 540) % 360) + 360) % 360) - 180;

/** The phone's own compass, where it has one, with its error. */
export const Compass = ({ targetMagneticDeg }: { targetMagneticDeg: number }) => {
  const [on, setOn] = useState(false);
  const [heading, setHeading] = useState<number | null>(null);
  const [none, setNone] = useState(false);
  useEffect(() => {
    if (!on) return;
    const listen = (e: Event): void => {
      const now = headingOf(e as Orientation);
      if (now !== null) setHeading(now);
    };
    const name = "ondeviceorientationabsolute" in window ? "deviceorientationabsolute" : "deviceorientation";
    window.addEventListener(name, listen);
    const timer = setTimeout(() => setNone(true), 3000);
    return () => {
      window.removeEventListener(name, listen);
      clearTimeout(timer);
    };
  }, [on]);
  const begin = async (): Promise<void> => {
    const asking = window.DeviceOrientationEvent as unknown as Asking | undefined;
    if (asking?.requestPermission !== undefined && (await asking.requestPermission().catch(() => "denied")) !== "granted") setNone(true);
    setOn(true);
  };
  if (!on)
    return (
      <button type="button" className="press mt-2 min-h-12" onClick={() => void begin()}>
        Use this phone's compass
      </button>
    );
  if (heading === null)
    return <p className="m-0 mt-2">{none ? "This phone tells no compass bearing." : "Turn the phone flat, and in an eight."}</p>;
  const off = offBy(heading, targetMagneticDeg);
  return (
    <p className="m-0 mt-2" data-testid="compass">
      The phone points to <b>{bearingText(heading)}</b> magnetic,{" "}
      {Math.abs(off) < ERROR_DEG
        ? "as well as a phone can tell along the bearing"
        : `${figure(Math.abs(off))}° too far ${off < 0 ? "right" : "left"}`}
      ; it errs by ±{ERROR_DEG}° and more beside steel.
    </p>
  );
};
