// A process that looks into files and does long work, one task after another. Whoever asks it watches its memory and its
// time and may end it at any moment.
import { logFault } from "../data/log";
import { endWithParent } from "./end-with-parent";
import { watchProgress } from "./goes-on";
import { type AnswerMessage, type AskMessage, faultMessage } from "./reader-messages";
import { runTask } from "./reader-tasks";

const TELL_EVERY_MS = 500;

const send = (message: AnswerMessage): void => {
  // Whoever asked may be gone: then this process ends, too.
  if (process.connected) process.send?.(message, undefined, undefined, () => undefined);
};
let told = 0;
watchProgress(() => {
  const now = Date.now();
  if (now - told < TELL_EVERY_MS) return;
  told = now;
  send({ kind: "goes-on" });
});
process.on("message", (message: AskMessage) => {
  runTask(message.kind, message.task as never, message.who).then(
    (value) => send({ kind: "answer", id: message.id, value }),
    (error: unknown) => send({ kind: "fault", id: message.id, fault: faultMessage(error) }),
  );
});
process.on("disconnect", () => process.exit(0));
// A fault that no task caught ends the process: the one who watches it starts another.
process.on("uncaughtException", (error) => {
  logFault("reader", error);
  process.exit(70);
});
endWithParent();
send({ kind: "ready" });
