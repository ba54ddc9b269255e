"use client";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { getJson } from "../../api/client";
import { Field } from "../../controls/field";
import { House } from "../../frame/house";
import { Trouble } from "../../frame/trouble";
import { useMeQuery } from "../../state/me";
import { type Document, groupsOf, type Line } from "./lines";

/** @param of the address it belongs to. */
const Shown = ({ title, of, value }: { title: string; of: string; value: unknown }) => (
  <details className="mt-1.5">
    <summary className="cursor-pointer text-note">{title}</summary>
    {/* It scrolls by itself: the keyboard must reach it. */}
    <section
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolled part is reached by the keyboard only where it can be focused
      tabIndex={0}
      aria-label={`${title}: ${of}`}
      className="mt-1 max-h-[320px] overflow-auto border-l-2 border-rule pl-3"
    >
      <pre className="m-0 font-mono text-line">{typeof value === "string" ? value : JSON.stringify(value, null, 2)}</pre>
    </section>
  </details>
);

const Operation = ({ line, schemas }: { line: Line; schemas: Document["components"]["schemas"] }) => (
  <li className="border-b border-rule py-2">
    <p className="m-0 flex flex-wrap items-baseline gap-x-3">
      <code className="w-[52px] flex-none font-mono text-line font-bold">{line.method}</code>
      <code className="break-all font-mono text-line">{line.path}</code>
    </p>
    <p className="m-0 pl-[64px]">
      {line.does} <span className="text-ink-2">{line.who}</span>
    </p>
    <div className="pl-[64px]">
      {line.query.length > 0 && (
        <p className="m-0 text-note">
          {line.query.map((q, i) => (
            <span key={q.name}>
              {i > 0 && " · "}
              <code className="font-mono">{q.name}</code> <span className="text-ink-2">{q.says}</span>
            </span>
          ))}
        </p>
      )}
      {line.body !== null && <Shown title="What it takes" of={`${line.method} ${line.path}`} value={line.body} />}
      {line.row !== null && <Shown title="What it answers with" of={`${line.method} ${line.path}`} value={schemas[line.row]} />}
    </div>
  </li>
);

/** What programs may ask of this server: every address, who may ask it, what it takes. */
export const InterfaceSheet = () => {
  const signIn = useMeQuery().data?.signIn;
  const [wanted, setWanted] = useState("");
  const { data, error } = useQuery({
    queryKey: ["openapi"],
    queryFn: ({ signal }) => getJson<Document>("/api/openapi", signal),
    staleTime: 600_000,
  });
  const groups = data === undefined ? [] : groupsOf(data, wanted);
  return (
    <House title="Interface">
      {data === undefined ? (
        <Trouble error={error} waiting="Reading what may be asked." />
      ) : (
        <>
          <p className="m-0 max-w-[76ch]">
            The pages ask the server at these addresses, and so may a program. It sends a token with each request;{" "}
            {signIn === false
              ? "here nobody signs in, so programs on this machine need none."
              : "an owner makes one under People, Programs."}{" "}
            Edits name the version they were made on: one that was overtaken is answered with the row as it stands, and nothing is written.
          </p>
          <pre className="mt-3 mb-3 whitespace-pre-wrap break-all border-l-2 border-ink pl-3 font-mono text-line">
            {`curl -H "Authorization: Bearer dryarc_…" ${data.servers[0]?.url}/jobs`}
          </pre>
          <p className="m-0 mb-4">
            <a className="press" href="/api/openapi" download="dry-arc-openapi.json">
              The whole as OpenAPI 3.1
            </a>
            , made from what the server itself checks requests by.
          </p>
          <div className="max-w-[360px]">
            <Field label="Find an address" value={wanted} onChange={(e) => setWanted(e.target.value)} autoComplete="off" />
          </div>
          {groups.map((group) => (
            <section key={group.name} aria-label={group.name}>
              <h2 className="mb-0 mt-6 text-part font-bold">{group.name}</h2>
              <ul className="m-0 max-w-[980px] list-none p-0">
                {group.lines.map((line) => (
                  <Operation key={`${line.method} ${line.path}`} line={line} schemas={data.components.schemas} />
                ))}
              </ul>
            </section>
          ))}
          {wanted.trim() === "" && (
            <section aria-label="Calls">
              <h2 className="mb-0 mt-6 text-part font-bold">calls that this server makes</h2>
              {Object.entries(data.webhooks).map(([name, { post }]) => (
                <div key={name} className="max-w-[980px] py-2">
                  <p className="m-0">{post.summary}</p>
                  <p className="m-0 mt-1 max-w-[86ch] text-ink-2">{post.description}</p>
                  <Shown title="What it tells" of={`call ${name}`} value={post.requestBody.content["application/json"]?.schema} />
                </div>
              ))}
            </section>
          )}
          {groups.length === 0 && <p className="mt-6">No address has that in it.</p>}
        </>
      )}
    </House>
  );
};
