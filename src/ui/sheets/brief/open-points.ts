import type { Brief, LinkDto, PhotoDto, SiteDto } from "@/contract";
import { PERMISSIONS } from "@/contract";

/** One thing that keeps a brief from being settled, in words. */
export interface OpenPoint {
  readonly tab: "need" | "shapes" | "there" | "photos" | "permission";
  readonly words: string;
}

const PERMISSION_DONE = ["granted", "not-needed"];

/** What is still open of a brief: it is not settled while anything is here. */
export const openPoints = (
  brief: Brief,
  links: readonly LinkDto[],
  sites: readonly SiteDto[],
  photos: readonly PhotoDto[],
): OpenPoint[] => {
  const out: OpenPoint[] = [];
  const nameOf = (id: string): string => sites.find((s) => s.id === id)?.name ?? "a site";
  if (links.length === 0) out.push({ tab: "need", words: "No link is drawn yet, so no rate can be asked of one." });
  for (const l of links) {
    const missing = [l.design.needToFarMbps === null ? "to the far end" : "", l.design.needToNearMbps === null ? "back" : ""].filter(
      (w) => w !== "",
    );
    if (missing.length > 0)
      out.push({ tab: "need", words: `${nameOf(l.nearSiteId)} to ${nameOf(l.farSiteId)} has no required rate ${missing.join(" and ")}.` });
  }
  const without = [...new Set(brief.devices.map((d) => d.siteId))].filter(
    (id) => sites.some((s) => s.id === id) && !links.some((l) => l.farSiteId === id || l.nearSiteId === id),
  );
  for (const id of without) out.push({ tab: "need", words: `${nameOf(id)} has devices and no link.` });
  if (brief.feed.downMbps === null || brief.feed.upMbps === null)
    out.push({ tab: "need", words: "What feeds the near end is not said, down and up." });
  if (brief.shapes.chosen === null) out.push({ tab: "shapes", words: "No shape is chosen." });
  else if (brief.shapes.reason.trim() === "") out.push({ tab: "shapes", words: "The reason for the chosen shape is not recorded." });
  if (brief.source.freePort === "unknown") out.push({ tab: "there", words: "Whether the router has a free port is not known." });
  if (brief.source.freePort === "no" && brief.source.adapter.trim() === "")
    out.push({ tab: "there", words: "There is no free port, and no way round it is written down." });
  if (photos.length > 0 && photos.every((p) => p.fromWhere === "ground")) {
    out.push({ tab: "photos", words: "All photos are from the ground: none shows what an antenna would see." });
  }
  for (const r of brief.photoRequests)
    if (!r.got) out.push({ tab: "photos", words: `Asked for and not here yet: ${r.what === "" ? "a photo" : r.what}.` });
  for (const key of PERMISSIONS) {
    const p = brief.permissions.find((x) => x.key === key);
    if (p === undefined || !PERMISSION_DONE.includes(p.state))
      out.push({
        tab: "permission",
        words: `${PERMISSION_WORDS[key].title}: ${p?.state === "asked" ? "asked, no answer yet" : p?.state === "refused" ? "refused" : "open"}.`,
      });
  }
  return out;
};

interface PermissionWords {
  readonly title: string;
  /** Whom or what a task waits for. */
  readonly who: string;
  readonly ask: string;
}

export const PERMISSION_WORDS: Readonly<Record<(typeof PERMISSIONS)[number], PermissionWords>> = {
  landlord: {
    title: "Landlord",
    who: "the owner of the building",
    ask: "May something be fixed to each building, and cables led through it?",
  },
  planning: {
    title: "Planning",
    who: "the planning office",
    ask: "Does the local authority want to be asked about dishes, masts or height?",
  },
  heritage: { title: "Heritage", who: "heritage", ask: "Is a building or its surroundings protected?" },
  "tree-owner": { title: "Tree owner", who: "the owner of the trees", ask: "Whose are the trees, may they be cut, and when?" },
  "line-terms": {
    title: "Terms of the line",
    who: "the terms of the line",
    ask: "Do the terms allow the line to be shared with this neighbour?",
  },
  privacy: { title: "Camera privacy", who: "privacy", ask: "What may the cameras see and keep, and which signs are needed?" },
  controls: { title: "Plant controls", who: "the plant's controls", ask: "Would the internet reach machine controls through this link?" },
  supplies: {
    title: "Separate supplies",
    who: "whoever knows the supplies",
    ask: "Are the buildings fed and earthed separately? Then no copper between them.",
  },
  heights: { title: "Work at height", who: "work at height", ask: "Who is competent for it: do it, get help, or stop?" },
  mains: { title: "Mains", who: "the electrician", ask: "Who is competent for the supply: do it, get help, or stop?" },
  roadside: { title: "Roads and lines", who: "whoever owns the road", ask: "Is anything beside a road, a railway or a power line?" },
};
