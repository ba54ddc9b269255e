/* Links of the made-up job, as they are planned when it is opened. */

export interface PlannedLink {
  readonly near: string;
  readonly far: string;
  readonly label: string;
  readonly stage: string;
  readonly radio: readonly [string, string];
  readonly antenna?: readonly [string | null, string | null];
  readonly powerDbm: readonly [number, number];
  readonly centreMhz: number;
  readonly widthMhz: number;
  readonly needMbps: readonly [number, number];
  /** An alternative of another, or waiting for a relay: not on the air as it is. */
  readonly aside?: boolean;
  /** What stands before the far unit, when it hangs indoors. */
  readonly farWall?: string;
  /** Boresight of a sector at the near end, true bearing and tilt. */
  readonly nearAim?: { readonly azimuthDeg: number; readonly tiltDeg: number };
}

/** The tower's sector over the harbour: 6.9 degrees high, tilted 3 down. A remote at 200 m lies under it. */
const SECTOR_SOUTH_WEST = { azimuthDeg: 205, tiltDeg: -3 } as const;

/** Links of the job that rest on ground, bodies, levels and rules alone. */
export const plannedLinks: readonly PlannedLink[] = [
  {
    near: "office",
    far: "ice",
    label: "first idea",
    aside: true,
    stage: "Enquiry",
    radio: ["razorbill-grand", "razorbill-grand"],
    powerDbm: [25, 25],
    centreMhz: 5755,
    widthMhz: 40,
    needMbps: [20, 60],
  },
  {
    near: "office",
    far: "rope",
    label: "",
    stage: "Planned",
    radio: ["kittiwake-panel", "kittiwake-panel"],
    powerDbm: [11, 11],
    centreMhz: 5510,
    widthMhz: 40,
    needMbps: [20, 40],
  },
  {
    near: "office",
    far: "ice",
    label: "60 GHz pair",
    stage: "In service",
    radio: ["eider-small", "eider-small"],
    powerDbm: [15, 15],
    centreMhz: 60_480,
    widthMhz: 2160,
    needMbps: [20, 60],
  },
  {
    near: "office",
    far: "pilot",
    label: "",
    stage: "Planned",
    radio: ["kittiwake-dish", "kittiwake-dish"],
    powerDbm: [5, 5],
    centreMhz: 5550,
    widthMhz: 40,
    needMbps: [30, 30],
  },
  {
    near: "office",
    far: "exchange",
    label: "",
    stage: "Planned",
    radio: ["kittiwake-panel", "kittiwake-panel"],
    powerDbm: [8, 8],
    centreMhz: 5670,
    widthMhz: 40,
    needMbps: [40, 20],
  },
  {
    near: "office",
    far: "tower",
    label: "",
    stage: "In service",
    radio: ["kittiwake-panel", "kittiwake-panel"],
    powerDbm: [11, 11],
    centreMhz: 5610,
    widthMhz: 80,
    needMbps: [120, 40],
  },
  {
    near: "office",
    far: "skarn",
    label: "",
    stage: "Enquiry",
    radio: ["shearwater-panel", "shearwater-panel"],
    powerDbm: [15, 15],
    centreMhz: 6105,
    widthMhz: 40,
    needMbps: [5, 10],
  },
  {
    near: "office",
    far: "tarrow",
    label: "",
    stage: "Relay needed",
    aside: true,
    radio: ["razorbill-grand", "razorbill-grand"],
    powerDbm: [24, 24],
    centreMhz: 5500,
    widthMhz: 40,
    needMbps: [30, 30],
  },
  {
    near: "tower",
    far: "fuel",
    label: "",
    stage: "In service",
    radio: ["gannet-ninety", "skua-remote"],
    powerDbm: [13, 11],
    centreMhz: 5590,
    widthMhz: 40,
    needMbps: [5, 20],
    nearAim: SECTOR_SOUTH_WEST,
  },
  {
    near: "tower",
    far: "ferry",
    label: "",
    stage: "In service",
    radio: ["gannet-ninety", "skua-remote"],
    powerDbm: [13, 11],
    centreMhz: 5590,
    widthMhz: 40,
    needMbps: [5, 20],
    nearAim: SECTOR_SOUTH_WEST,
  },
  {
    near: "tower",
    far: "sailing",
    label: "",
    stage: "In service",
    radio: ["gannet-ninety", "skua-remote"],
    powerDbm: [13, 11],
    centreMhz: 5590,
    widthMhz: 40,
    needMbps: [10, 10],
    nearAim: { azimuthDeg: 130, tiltDeg: -3 },
  },
  {
    near: "tower",
    far: "net",
    label: "",
    stage: "Planned",
    radio: ["gannet-ninety", "skua-remote"],
    powerDbm: [13, 11],
    centreMhz: 5590,
    widthMhz: 40,
    needMbps: [5, 15],
    nearAim: SECTOR_SOUTH_WEST,
  },
  {
    near: "tower",
    far: "weigh",
    label: "",
    stage: "Planned",
    radio: ["gannet-ninety", "skua-remote"],
    powerDbm: [13, 11],
    centreMhz: 5590,
    widthMhz: 40,
    needMbps: [5, 10],
    nearAim: SECTOR_SOUTH_WEST,
  },
  {
    near: "office",
    far: "exchange",
    label: "behind the glass",
    aside: true,
    stage: "Enquiry",
    radio: ["kittiwake-panel", "kittiwake-panel"],
    powerDbm: [8, 8],
    centreMhz: 5500,
    widthMhz: 20,
    needMbps: [20, 10],
    farWall: "coated-glass",
  },
];
