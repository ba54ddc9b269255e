import type { JobBundle } from "@/contract";
import { type Verdict, worseVerdict } from "@/core/link";
import type { LoadView } from "./load-view";

/** A site of the tree, with what is asked on the link that leads to it and the worst of its places. */
export interface TreeNode {
  readonly siteId: string;
  readonly name: string;
  readonly askedMbps: number;
  readonly verdict: Verdict;
  readonly children: readonly TreeNode[];
}

/** The tree of a load from its feed; ends in the order of the job. */
export const loadTree = ({ load, places }: LoadView, job: Pick<JobBundle, "sites">): TreeNode | null => {
  const names = new Map(job.sites.map((s) => [s.id, s.name]));
  const byId = new Map(places.map((p) => [p.id, p]));
  const children = new Map<string, string[]>();
  for (const { id } of job.sites) {
    const parent = load.tree.up.get(id)?.parentId;
    if (parent !== undefined) children.set(parent, [...(children.get(parent) ?? []), id]);
  }
  const node = (siteId: string): TreeNode => {
    const u = load.tree.up.get(siteId);
    const link = load.input.links.find((l) => l.id === u?.linkId);
    const own = link === undefined ? undefined : byId.get(`port:${link.id}:${siteId}`);
    const others = places.filter((p) => (link === undefined ? p.id === `feed:${siteId}` : load.places[p.place]!.linkIds.includes(link.id)));
    const passing = own ?? byId.get(`feed:${siteId}`);
    return {
      siteId,
      name: names.get(siteId) ?? "a site that is gone",
      askedMbps: passing === undefined ? 0 : passing.asked.there + passing.asked.back,
      verdict: others.reduce<Verdict>((v, p) => worseVerdict(v, p.verdict), "clear"),
      children: (children.get(siteId) ?? []).map(node),
    };
  };
  return names.has(load.tree.rootId) ? node(load.tree.rootId) : null;
};
