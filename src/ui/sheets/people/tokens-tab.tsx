"use client";
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import type { TokenDto } from "@/contract";
import { getJson } from "../../api/client";
import { lazyPart, Opens } from "../../controls/lazy-part";
import { FormTrouble } from "../../controls/use-submit";
import { Trouble } from "../../frame/trouble";
import { lastDayText, ROLE_NAME, TOKEN_DOES } from "../../wording/people";
import { DONE_BY_OTHERS, TOKENS } from "./people-keys";
import { EndPress, FirmTable, ROW, useEnding, useOpenWords, when } from "./people-table";

const TokenDialog = lazyPart(() => import("./token-dialog").then((m) => m.TokenDialog));

/** Programs that come in by a token: what each may do, until when, and whether it was here. */
export const TokensTab = () => {
  const openWords = useOpenWords();
  const ending = useEnding(TOKENS);
  const { data, error } = useQuery({
    queryKey: TOKENS,
    queryFn: ({ signal }) => getJson<TokenDto[]>("/api/tokens", signal),
    ...DONE_BY_OTHERS,
  });
  if (data === undefined) return <Trouble error={error} waiting="Reading the tokens." />;
  return (
    <>
      <h2 className="mb-1 mt-4 text-part font-bold">Tokens: programs that come in</h2>
      <p className="mt-0 mb-2 max-w-[76ch]">
        A token lets a program in: a register that reads what is planned, a script that brings readings in. It is never more than its maker
        is, and ends with them. What it may ask is written down under{" "}
        <Link prefetch={false} className="press" href="/interface">
          Interface
        </Link>
        .
      </p>
      <Opens part={TokenDialog} given={{}} className="press">
        Make a token
      </Opens>
      <FormTrouble of={ending.ending} />
      {data.length === 0 ? (
        <p className="mt-3 text-ink-2">None was made yet.</p>
      ) : (
        <FirmTable label="Tokens" heads={["For", "Made by", "May", "Last used", "How it stands"]} last="End">
          {data.map((t) => (
            <tr key={t.id} className={ROW}>
              <td className="font-figure">{t.name}</td>
              <td>{t.person}</td>
              <td>
                {TOKEN_DOES[t.becomes.role] ?? ROLE_NAME[t.becomes.role].toLowerCase()}; {openWords(t.becomes)}
              </td>
              <td>
                {t.lastUsedAt === null ? "not yet" : `${when(t.lastUsedAt)}${t.lastUsedFrom === null ? "" : `, from ${t.lastUsedFrom}`}`}
              </td>
              <td>{t.ended ? "ended" : `opens until ${lastDayText(t.expiresAt)}`}</td>
              <td>{!t.ended && <EndPress by={ending} at={`/api/tokens/${t.id}`} word="End" whose={`the token for ${t.name}`} />}</td>
            </tr>
          ))}
        </FirmTable>
      )}
    </>
  );
};
