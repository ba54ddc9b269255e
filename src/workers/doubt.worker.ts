import { expose } from "comlink";
import { monteCarlo, type PathProfile, preparePath } from "@/core/link";
import type { DoubtWorker } from "./messages";

let profile: PathProfile | null = null;

expose({
  open: (next) => {
    profile = next;
  },
  doubt: ({ plan, draws, seed }) => (profile === null ? null : monteCarlo(plan, preparePath(plan, profile), { draws, seed })),
} satisfies DoubtWorker);
