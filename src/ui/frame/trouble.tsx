import { bodyOf } from "../api/client";
import { VerdictMark } from "../marks/verdict-mark";
import { errorSentence } from "../wording/errors";

/** What is shown while something is awaited or cannot be had. It says so again by itself when it comes. */
export const Trouble = ({ error, waiting }: { error: unknown; waiting: string }) => {
  if (error === null || error === undefined) {
    return (
      <p role="status" className="p-6 text-ink-2">
        {waiting}
      </p>
    );
  }
  const body = bodyOf(error);
  return (
    <div role="alert" className="flex items-start gap-3 p-6">
      <VerdictMark verdict="unknown" a={11} />
      <p className="m-0 max-w-[60ch] text-press leading-5">{errorSentence(body)}</p>
    </div>
  );
};
