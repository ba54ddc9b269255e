import { expose } from "comlink";
import { decidingDraws, type PathProfile, preparePath } from "@/core/link";
import type { DoubtWorker } from "./messages";

let profile: PathProfile | null = null;

expose({
  open: (next) => {
    profile = next;
  },
  doubt: (plan) => (profile === null ? null : decidingDraws(plan, preparePath(plan, profile))),
} satisfies DoubtWorker);
