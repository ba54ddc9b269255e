import { expose } from "comlink";
import { monteCarlo, preparePath } from "@/core/link";
import type { DoubtRequest, DoubtWorker } from "./messages";

const doubt = ({ plan, profile, draws, seed }: DoubtRequest) => monteCarlo(plan, preparePath(plan, profile), { draws, seed });

expose({ doubt } satisfies DoubtWorker);
