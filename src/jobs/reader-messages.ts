import type { ErrorCode } from "../contract";
import type { Asker } from "../data/actor";
import { NotFound, Refused } from "../data/clash";
import { isUnreachable } from "../data/client";
import { faultLine } from "../data/log";
import { FileFault } from "../formats";
import type { TaskKind } from "./reader-tasks";

/* What goes between a reader process and whoever asks it. */

export interface AskMessage {
  readonly id: number;
  readonly kind: TaskKind;
  readonly task: unknown;
  /** Who asks. */
  readonly who: Asker | null;
}
export type AnswerMessage =
  | { readonly kind: "ready" }
  | { readonly kind: "goes-on" }
  | { readonly kind: "answer"; readonly id: number; readonly value: unknown }
  | { readonly kind: "fault"; readonly id: number; readonly fault: FaultMessage };

export type FaultMessage =
  | { readonly type: "file"; readonly message: string; readonly asks: FileFault["asks"] }
  | {
      readonly type: "refused";
      readonly code: ErrorCode;
      readonly path: string;
      readonly values: Readonly<Record<string, string | number>>;
    }
  | { readonly type: "not-found"; readonly entity: string }
  | { readonly type: "unreachable" }
  | { readonly type: "other"; readonly line: string };

export const faultMessage = (error: unknown): FaultMessage => {
  if (error instanceof FileFault) return { type: "file", message: error.message, asks: error.asks };
  if (error instanceof Refused) return { type: "refused", code: error.code, path: error.path, values: error.values };
  if (error instanceof NotFound) return { type: "not-found", entity: error.entity };
  if (isUnreachable(error)) return { type: "unreachable" };
  return { type: "other", line: faultLine(error) };
};

/** The same fault in this process. */
export const errorOf = (fault: FaultMessage): Error => {
  if (fault.type === "file") return new FileFault(fault.message, fault.asks);
  if (fault.type === "refused") return new Refused(fault.code, fault.path, fault.values);
  if (fault.type === "not-found") return new NotFound(fault.entity);
  if (fault.type === "unreachable") return Object.assign(new Error("the database is away"), { code: "ECONNREFUSED" });
  return new Error(fault.line);
};
