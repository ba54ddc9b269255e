import type { Verdict } from "@/core/link";
import { VerdictMark } from "../marks/verdict-mark";
import { cutMiddle } from "../wording/names";
import { VERDICT_WORD } from "../wording/verdicts";
import type { StripCell } from "./sheet";

const MOST_LETTERS = 22;

/** The cell of the title strip that names a link, with its verdict; null where there is none yet. */
export const linkCell = (
  link: { readonly verdict: Verdict; readonly nearName: string; readonly farName: string; readonly label: string } | null,
): StripCell =>
  link === null
    ? { label: "Link", value: "none yet", grow: 2.5 }
    : {
        label: (
          <>
            Link <VerdictMark verdict={link.verdict} a={7} />
            <span className={`font-figure v-${link.verdict}`} data-testid="link-verdict">
              {VERDICT_WORD[link.verdict]}
            </span>
          </>
        ),
        value: (
          <>
            <span className="text-near">{cutMiddle(link.nearName, MOST_LETTERS)}</span> to{" "}
            <span className="text-far">{cutMiddle(link.farName, MOST_LETTERS)}</span>
            {link.label === "" ? "" : `, ${link.label}`}
          </>
        ),
        grow: 2.5,
      };

/** Actions that open the sections of a job's links. */
export const openLinkActions = (
  jobId: string,
  links: readonly { readonly linkId: string; readonly nearName: string; readonly farName: string; readonly label: string }[],
): { readonly name: string; readonly href: string }[] =>
  links.map((l) => ({
    name: `Open ${l.nearName} to ${l.farName}${l.label === "" ? "" : `, ${l.label}`}`,
    href: `/jobs/${jobId}/section/${l.linkId}`,
  }));
