/*
 * What the devices at a far end ask of a link, in Mbps each way. The figures per pixel, per user and per call are
 * ours, of low confidence, and shown with every result; a rate read off a device replaces the estimate.
 */

export type DeviceKind = "camera" | "access-point" | "phone" | "control" | "internet" | "recorder" | "other";
export const DEVICE_KINDS = [
  "camera",
  "access-point",
  "phone",
  "control",
  "internet",
  "recorder",
  "other",
] as const satisfies readonly DeviceKind[];
export type Codec = "h264" | "h265" | "mjpeg";

/** Bits that an encoder spends on a pixel of a usual scene. */
export const BITS_PER_PIXEL: Readonly<Record<Codec, number>> = { h264: 0.1, h265: 0.06, mjpeg: 0.8 };
/** How much the scene moves, as a factor on the bits. */
export const SCENE_FACTOR = { quiet: 0.6, usual: 1, busy: 1.5 } as const;
export type Scene = keyof typeof SCENE_FACTOR;
/** A scene that changes all at once: headlights, rain, a door. */
const CAMERA_PEAK = 1.5;
/** Commands and acknowledgements to a camera. */
const CAMERA_BACK_MBPS = 0.05;
/** While active a user takes this; this share of users is active at once; one of them may fill a burst. */
const USER_DOWN_MBPS = 5;
const USER_UP_MBPS = 1;
const USERS_AT_ONCE = 0.3;
const BURST_DOWN_MBPS = 25;
const BURST_UP_MBPS = 5;
/** One call with its packet headers, each way. */
const CALL_MBPS = 0.1;
const CONTROL_MBPS = 0.05;

/** One row of the table of devices at a far end. */
export interface Device {
  readonly kind: DeviceKind;
  readonly count: number;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly framesPerS: number;
  readonly codec: Codec;
  readonly scene: Scene;
  readonly users: number;
  /** Rates of one device read off it or off a contract; null while they are estimated. */
  readonly downMbps: number | null;
  readonly upMbps: number | null;
}

export interface Rates {
  /** From the near to the far end. */
  readonly toFarMbps: number;
  readonly toNearMbps: number;
}

export interface Demand {
  readonly usual: Rates;
  readonly peak: Rates;
}

/** Rate of one camera's stream: pixels x frames x bits per pixel x scene. */
export const cameraMbps = (d: Pick<Device, "widthPx" | "heightPx" | "framesPerS" | "codec" | "scene">): number =>
  (d.widthPx * d.heightPx * d.framesPerS * BITS_PER_PIXEL[d.codec] * SCENE_FACTOR[d.scene]) / 1e6;

const oneDevice = (d: Device): Demand => {
  const same = (toFarMbps: number, toNearMbps: number): Demand => ({ usual: { toFarMbps, toNearMbps }, peak: { toFarMbps, toNearMbps } });
  switch (d.kind) {
    case "camera": {
      const up = cameraMbps(d);
      return {
        usual: { toFarMbps: CAMERA_BACK_MBPS, toNearMbps: up },
        peak: { toFarMbps: CAMERA_BACK_MBPS, toNearMbps: up * CAMERA_PEAK },
      };
    }
    case "access-point": {
      const active = Math.max(d.users === 0 ? 0 : 1, d.users * USERS_AT_ONCE);
      return {
        usual: { toFarMbps: active * USER_DOWN_MBPS, toNearMbps: active * USER_UP_MBPS },
        peak: {
          toFarMbps: active * USER_DOWN_MBPS + (d.users === 0 ? 0 : BURST_DOWN_MBPS),
          toNearMbps: active * USER_UP_MBPS + (d.users === 0 ? 0 : BURST_UP_MBPS),
        },
      };
    }
    case "phone":
      return same(CALL_MBPS, CALL_MBPS);
    case "control":
      return same(CONTROL_MBPS, CONTROL_MBPS);
    default:
      return same(0, 0);
  }
};

/**
 * What one row asks, all its devices together. A camera whose recorder stands at its own end is only watched
 * from the other one now and then: its stream then crosses once, not for every hour of the day.
 */
export const deviceDemand = (d: Device): Demand => {
  const one = oneDevice(d);
  const scaled = (r: Rates): Rates => ({
    toFarMbps: d.count * (d.downMbps ?? r.toFarMbps),
    toNearMbps: d.count * (d.upMbps ?? r.toNearMbps),
  });
  return { usual: scaled(one.usual), peak: scaled(one.peak) };
};

const add = (a: Rates, b: Rates): Rates => ({ toFarMbps: a.toFarMbps + b.toFarMbps, toNearMbps: a.toNearMbps + b.toNearMbps });
const NONE: Rates = { toFarMbps: 0, toNearMbps: 0 };
/** Of streams recorded at the far end, this share is watched from the near end at the worst moment (ours). */
export const WATCHED_SHARE = 0.25;

/**
 * What a far end asks of its link. Cameras are recorded at the near end unless the recorder stands at the far one.
 * @param recorder where the recordings go.
 */
export const demandOf = (devices: readonly Device[], recorder: "near" | "far" | "none"): Demand =>
  devices.reduce<Demand>(
    (sum, d) => {
      const own = deviceDemand(d);
      const share = d.kind === "camera" && recorder === "far" ? WATCHED_SHARE : 1;
      const crossed = (r: Rates): Rates => ({ toFarMbps: r.toFarMbps, toNearMbps: r.toNearMbps * share });
      return { usual: add(sum.usual, crossed(own.usual)), peak: add(sum.peak, crossed(own.peak)) };
    },
    { usual: NONE, peak: NONE },
  );

/** A required rate as one writes it down: up to the next whole Mbps, to two figures above 100. */
export const roundedNeedMbps = (mbps: number): number => (mbps > 100 ? Math.ceil(mbps / 10) * 10 : Math.ceil(mbps - 1e-9));
