const ENTITY: Readonly<Record<string, string>> = {
  site: "site",
  link: "link",
  design: "design of a link",
  job: "basis of the job",
  brief: "brief",
  obstacle: "obstacle",
  feature: "named ground",
  photo: "photo",
  import: "import",
};
const ACTION: Readonly<Record<string, string>> = {
  create: "added",
  update: "changed",
  delete: "taken away",
  restore: "brought back",
  import: "taken in",
  undo: "undone",
  redo: "done again",
};
const FIELD: Readonly<Record<string, string>> = {
  latDeg: "position",
  lonDeg: "position",
  mountAglM: "mount height",
  mountMaxAglM: "highest mount",
  mastCostPerM: "cost of mast",
  policyOver: "policy of this link",
  outline: "outline",
  shape: "line",
  heightM: "height",
  growthMPerYear: "growth",
  nearMountAglM: "near mount",
  farMountAglM: "far mount",
  nearPowerDbm: "near power",
  farPowerDbm: "far power",
  centreMhz: "channel",
  widthMhz: "width",
  trimsM: "planned cuts",
  groundTold: "told ground",
  mountingPoints: "mounting points",
  needToFarMbps: "need to far",
  needToNearMbps: "need to near",
  doc: "contents",
};

/** One edit in a few words: "site Rope Walk, changed: position". */
export const stepText = (s: {
  readonly entity: string;
  readonly action: string;
  readonly name: string;
  readonly fields?: readonly string[];
}): string => {
  const what = `${ENTITY[s.entity] ?? s.entity}${s.name === "" || s.entity === "brief" ? "" : ` ${s.name}`}`;
  const fields = [...new Set((s.fields ?? []).map((f) => FIELD[f] ?? f))];
  return `${what}, ${ACTION[s.action] ?? s.action}${fields.length === 0 ? "" : `: ${fields.slice(0, 3).join(", ")}${fields.length > 3 ? " and more" : ""}`}`;
};
