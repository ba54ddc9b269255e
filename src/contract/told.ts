/*
 * What the browser needs of every kind of record before anything is typed: its address, its words, what of it is secret.
 * Its fields, with their rules, are in records.ts, which builds on this list.
 */

export interface ToldKind {
  readonly parent: "none" | "job" | "site" | "link";
  /** False: there is at most one of its parent, and its id is the parent's. */
  readonly many: boolean;
  /** Its name in addresses: /api/jobs/{job}/{route}/{id}. */
  readonly route: string;
  /** What it is called; each of its fields has a word, so that these are its fields. */
  readonly words: { readonly one: string; readonly many: string; readonly fields: Readonly<Record<string, string>> };
  /** Fields that are never told: not in history, undo, news, drafts, bundles, lists or logs. */
  readonly secrets?: readonly string[] | undefined;
}

export const TOLD = {
  job: {
    parent: "none",
    many: true,
    route: "jobs",
    words: {
      one: "basis of the job",
      many: "jobs",
      fields: {
        name: "name",
        place: "place",
        stage: "stage",
        visitOn: "day of visit",
        centreLatDeg: "centre",
        centreLonDeg: "centre",
        ruleDomain: "rules",
        clearancePolicy: "clearance policy",
        kFactor: "k",
        kLow20: "low k at 20 km",
        kLow50: "low k at 50 km",
        kLow100: "low k at 100 km",
        treePolicy: "tree policy",
        leafState: "leaves",
        horizonYears: "horizon",
        throughputSchool: "throughput school",
        freeShare: "free share",
        marginDb: "margin",
        rainRate001MmH: "rain rate",
        temperatureC: "temperature",
        pressureHpa: "pressure",
        vapourDensityGm3: "vapour",
        climateZone: "climate",
        gradientDn1NPerKm: "dN1",
        roughnessSaM: "terrain roughness",
        waterSurface: "water",
        tideRangeM: "tide range",
        waterRoughnessM: "waves",
        timeZone: "time zone",
        ownRules: "own rule rows",
      },
    },
  },
  brief: {
    parent: "job",
    many: false,
    route: "brief",
    words: {
      one: "brief",
      many: "briefs",
      fields: {
        customer: "customer",
        contact: "contact",
        purpose: "purpose",
        devices: "devices",
        recorder: "recorder",
        feed: "feed",
        source: "source",
        wifiChannels: "Wi-Fi channels",
        shapes: "shapes compared",
        inventory: "what is there",
        oldFailure: "why the old link failed",
        oldFailureNote: "note on the old link",
        photoRequests: "photos asked for",
        permissions: "permissions",
      },
    },
  },
  site: {
    parent: "job",
    many: true,
    route: "sites",
    words: {
      one: "site",
      many: "sites",
      fields: {
        name: "name",
        latDeg: "position",
        lonDeg: "position",
        mountAglM: "mount height",
        mountMaxAglM: "highest mount",
        mastCostPerM: "cost of mast",
        stands: "what it stands on",
        structure: "structure",
        power: "power",
        material: "material",
        cableEntry: "cable entry",
        access: "access",
        owner: "owner",
        notes: "notes",
        mountingPoints: "mounting points",
        ticks: "what was looked at",
      },
    },
  },
  link: {
    parent: "job",
    many: true,
    route: "links",
    words: { one: "link", many: "links", fields: { label: "label", stage: "stage", groundTold: "told ground" } },
  },
  design: {
    parent: "link",
    many: true,
    route: "designs",
    words: {
      one: "design",
      many: "designs",
      fields: {
        nearMountAglM: "near mount",
        farMountAglM: "far mount",
        nearMountId: "near mounting point",
        farMountId: "far mounting point",
        nearRadioId: "near radio",
        farRadioId: "far radio",
        nearAntennaId: "near antenna",
        farAntennaId: "far antenna",
        nearPowerDbm: "near power",
        farPowerDbm: "far power",
        nearFeederLossDb: "near feeder loss",
        farFeederLossDb: "far feeder loss",
        nearConnectorLossDb: "near connector loss",
        farConnectorLossDb: "far connector loss",
        nearWall: "near wall",
        farWall: "far wall",
        nearWallLossDb: "near wall loss",
        farWallLossDb: "far wall loss",
        nearInterferenceDbm: "near interference",
        farInterferenceDbm: "far interference",
        nearAimAzimuthDeg: "near azimuth",
        farAimAzimuthDeg: "far azimuth",
        nearAimTiltDeg: "near tilt",
        farAimTiltDeg: "far tilt",
        frameShareToFar: "share of the frame",
        centreMhz: "channel",
        widthMhz: "width",
        needToFarMbps: "need to far",
        needToNearMbps: "need to near",
        trimsM: "planned cuts",
        needYearPercent: "share of the year",
        nearPort: "near port",
        farPort: "far port",
        permissions: "permissions",
        policyOver: "policy of this link",
      },
    },
  },
  limits: {
    parent: "job",
    many: false,
    route: "limits",
    words: {
      one: "limits of the gear",
      many: "limits",
      fields: {
        alike: "one radio for both ends",
        keep: "end that stays",
        likeForLike: "like for like",
        bands: "bands",
        family: "family",
        priceMost: "price of both ends",
        portLeastMbps: "least port",
        noRadar: "radar channels",
        stockOnly: "only what is in stock",
        coldestC: "coldest day",
        hottestC: "hottest day",
        power: "school of power",
        targetDbm: "level aimed at",
        oneTypeMost: "one type for all links",
        sites: "limits at sites",
        links: "limits of links",
      },
    },
  },
  hub: {
    parent: "job",
    many: true,
    route: "hubs",
    words: {
      one: "hub",
      many: "hubs",
      fields: {
        name: "name",
        mountId: "mounting point",
        mountAglM: "mount height",
        grant: "asking before each burst",
        hearEachOther: "remotes that hear each other",
        sectors: "sectors",
        remotes: "remotes",
        later: "bearings kept free",
        moving: "clients moved over",
      },
    },
  },
  network: {
    parent: "job",
    many: false,
    route: "network",
    words: {
      one: "network of the job",
      many: "networks",
      fields: {
        feedSiteId: "site of the feed",
        secondFeed: "second feed",
        recorder: "where the recorder stands",
        recorderPortMbps: "port of the recorder",
        storeTb: "store of the recorder",
        ports: "ports at sites",
        uplinks: "ways set by hand",
        talks: "who talks to what",
        growth: "growth",
        bounds: "what delay is borne",
        testerMbps: "port of the tester",
      },
    },
  },
  air: {
    parent: "job",
    many: false,
    route: "air",
    words: {
      one: "channels of the job",
      many: "channels",
      fields: {
        widths: "school of widths",
        radar: "school of radar",
        always: "everybody sends all the time",
        locks: "locked channels",
        aside: "links left aside",
        isolations: "isolation on masts",
        others: "other radios",
        detections: "radar detections",
        watchedDays: "days watched for radar",
        fallbacks: "fallback channels",
        soaked: "soak of radar channels",
      },
    },
  },
  scan: {
    parent: "site",
    many: true,
    route: "scans",
    words: {
      one: "scan",
      many: "scans",
      fields: {
        heardOn: "day of the scan",
        mountId: "mounting point",
        linkId: "link whose radio heard it",
        gainDbi: "gain of what heard it",
        aglM: "height",
        counts: "it counts",
        note: "note",
        rows: "what was heard",
      },
    },
  },
  wiring: {
    parent: "site",
    many: true,
    route: "wirings",
    words: {
      one: "wiring",
      many: "wirings",
      fields: { places: "what stands there", leads: "leads", earth: "earth", sun: "battery and sun", roofAglM: "roof" },
    },
  },
  unit: {
    parent: "site",
    many: true,
    route: "units",
    words: {
      one: "unit",
      many: "units",
      fields: {
        partId: "type",
        serial: "serial number",
        mac: "address of its port",
        firmware: "firmware",
        port: "port",
        bracket: "bracket",
        state: "state",
        since: "since",
        cause: "cause of failure",
        replaces: "replaces",
        services: "services",
        note: "note",
      },
    },
  },
  addresses: {
    parent: "job",
    many: false,
    route: "addresses",
    words: {
      one: "addresses",
      many: "addresses",
      fields: {
        nets: "networks",
        taken: "taken addresses",
        takenOn: "day of the list",
        timeServer: "time server",
        given: "addresses given",
        plantControls: "plant controls",
        plantSigned: "sign-off of plant controls",
        acceptedBy: "wiring accepted by",
      },
    },
  },
  kit: {
    parent: "job",
    many: false,
    route: "kit",
    words: {
      one: "kit",
      many: "kits",
      fields: {
        sites: "mounts and walls",
        wind: "wind to bear",
        fixingFactor: "factor on fixings",
        sawsMm: "saws on the van",
        laddersM: "ladders on the van",
        crew: "who does the work",
        own: "rows of one's own",
        lessons: "lessons",
        lessonsRead: "lessons read",
        money: "money",
      },
    },
  },
  days: {
    parent: "job",
    many: false,
    route: "days",
    words: { one: "days", many: "days", fields: { tasks: "tasks", closures: "closures and water", tides: "tide table" } },
  },
  pick: {
    parent: "job",
    many: true,
    route: "picks",
    words: { one: "pick", many: "picks", fields: { state: "state", count: "count" } },
  },
  safety: {
    parent: "site",
    many: true,
    route: "safety",
    words: {
      one: "risk screen",
      many: "risk screens",
      fields: {
        answers: "answers",
        lineM: "distance of the overhead line",
        approachM: "approach distance",
        windLimitMS: "wind limit",
        rescue: "rescue plan",
        checkIn: "check-in",
      },
    },
  },
  roof: {
    parent: "link",
    many: true,
    route: "roof",
    words: {
      one: "entry of the roof",
      many: "entries of the roof",
      fields: {
        end: "end",
        act: "what was done",
        phone: "phone",
        order: "order",
        at: "time",
        aheadS: "error of the clock",
        by: "name",
        step: "step",
        part: "part of the step",
        axis: "axis",
        angleDeg: "angle",
        levelDbm: "level",
        way: "how the angle was taken",
        readAt: "where it was read",
        of: "entry that is taken back",
        words: "words",
      },
    },
  },
  obstacle: {
    parent: "job",
    many: true,
    route: "obstacles",
    words: {
      one: "obstacle",
      many: "obstacles",
      fields: {
        name: "name",
        kind: "kind",
        outline: "outline",
        holes: "courtyards",
        baseAmslM: "foot",
        heightM: "height",
        crownBaseM: "foot of the crown",
        freeBelowM: "free air",
        growthMPerYear: "growth",
        heightSigmaM: "error of the height",
        species: "species",
        leaf: "leaves",
        source: "source",
        heightSource: "where the height is from",
        surveyedOn: "day of the survey",
      },
    },
  },
  feature: {
    parent: "job",
    many: true,
    route: "features",
    words: { one: "named ground", many: "named ground", fields: { name: "name", points: "line" } },
  },
  photo: {
    parent: "job",
    many: true,
    route: "photos",
    words: {
      one: "photo",
      many: "photos",
      fields: { siteId: "site", fromWhere: "where from", bearingDeg: "bearing", takenOn: "day", note: "note" },
    },
  },
  basemap: {
    parent: "job",
    many: true,
    route: "basemaps",
    words: {
      one: "map beneath the drawing",
      many: "maps",
      fields: { kind: "kind", name: "name", address: "address", uploadId: "file", credit: "credit" },
    },
  },
} as const satisfies Readonly<Record<string, ToldKind>>;

export type KindName = keyof typeof TOLD;

const LIST: Record<string, ToldKind> = { ...TOLD };

export const isKind = (name: string): boolean => Object.hasOwn(LIST, name);

/** @throws RangeError when there is no such kind. */
export const toldOf = (name: string): ToldKind => {
  const found = isKind(name) ? LIST[name] : undefined;
  if (found === undefined) throw new RangeError(`no kind of record is called ${name}`);
  return found;
};

/** Where a record of a job is edited. */
export const recordPath = (jobId: string, kind: string, id: string): string => {
  const k = toldOf(kind);
  if (k.parent === "none") return `/api/jobs/${jobId}`;
  return `/api/jobs/${jobId}/${k.route}${k.many ? `/${id}` : ""}`;
};

/** Adds a kind to this list while a test runs. @returns a function that takes it off again. */
export const withTold = (name: string, k: ToldKind): (() => void) => {
  if (isKind(name)) throw new RangeError(`${name} is on the list already`);
  LIST[name] = k;
  return () => {
    delete LIST[name];
  };
};
