/* The interface's own document, line by line, as its page shows it. */

interface Parameter {
  readonly name?: string;
  readonly in?: string;
  readonly description?: string;
}
interface Told {
  readonly tags: readonly string[];
  readonly summary: string;
  readonly description: string;
  readonly parameters: readonly Parameter[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema?: unknown }>> };
  readonly responses: Readonly<Record<string, { readonly content?: Readonly<Record<string, { readonly schema?: unknown }>> }>>;
}
export interface Document {
  readonly servers: readonly { readonly url: string }[];
  readonly tags: readonly { readonly name: string }[];
  readonly paths: Readonly<Record<string, Readonly<Record<string, Told>>>>;
  readonly webhooks: Readonly<
    Record<
      string,
      {
        readonly post: {
          readonly summary: string;
          readonly description: string;
          readonly requestBody: { readonly content: Readonly<Record<string, { readonly schema?: unknown }>> };
        };
      }
    >
  >;
  readonly components: { readonly schemas: Readonly<Record<string, unknown>> };
}

export interface Line {
  readonly method: string;
  readonly path: string;
  readonly does: string;
  readonly who: string;
  readonly query: readonly { readonly name: string; readonly says: string }[];
  /** The schema of what it takes, or the kind of file; null when nothing. */
  readonly body: unknown;
  /** Name of the record that it answers with, where it is one. */
  readonly row: string | null;
}

const bodyOf = (told: Told): unknown => {
  const [[type, { schema } = {}] = []] = Object.entries(told.requestBody?.content ?? {});
  if (type === undefined) return null;
  return schema ?? `a file of type ${type}`;
};

/** The name of a record behind a reference, or a list of them. */
const rowOf = (told: Told): string | null => {
  const schema = told.responses["200"]?.content?.["application/json"]?.schema as { $ref?: string; items?: { $ref?: string } } | undefined;
  return (schema?.$ref ?? schema?.items?.$ref)?.split("/").at(-1) ?? null;
};

/** Operations by what they are about, of those whose address or sentence has some letters in it. */
export const groupsOf = (document: Document, wanted: string): { readonly name: string; readonly lines: readonly Line[] }[] => {
  const letters = wanted.trim().toLowerCase();
  const groups = new Map<string, Line[]>(document.tags.map((t) => [t.name, []]));
  for (const [path, methods] of Object.entries(document.paths))
    for (const [method, told] of Object.entries(methods)) {
      if (letters !== "" && !`${path} ${told.summary}`.toLowerCase().includes(letters)) continue;
      groups.get(told.tags[0] ?? "")?.push({
        method: method.toUpperCase(),
        path,
        does: told.summary,
        who: told.description,
        query: told.parameters.flatMap((p) =>
          p.in === "query" && p.name !== undefined ? [{ name: p.name, says: p.description ?? "" }] : [],
        ),
        body: bodyOf(told),
        row: rowOf(told),
      });
    }
  return [...groups].flatMap(([name, lines]) => (lines.length === 0 ? [] : [{ name, lines }]));
};
