import { expose } from "comlink";
import { type RelayQuestion, relaySpots } from "@/core/solve";
import type { RelayWorker } from "./messages";

const search = (q: RelayQuestion, onProgress: (share: number) => void) => relaySpots(q, onProgress);

expose({ search } satisfies RelayWorker);
