/* The drawing as a file of its own: styles written into each element, type shipped inside. */

const COPIED = [
  "fill",
  "fill-opacity",
  "stroke",
  "stroke-width",
  "stroke-dasharray",
  "stroke-linejoin",
  "opacity",
  "font-size",
  "font-weight",
  "font-family",
  "letter-spacing",
  "text-anchor",
  "paint-order",
] as const;
const SCALE = 2;
const TITLE_PX = 40;

/** Properties a child has of its parent: written only where they change. */
const INHERITED: ReadonlySet<string> = new Set(COPIED.filter((name) => name !== "opacity"));
const INITIAL: Readonly<Record<string, string>> = { opacity: "1" };

/** A copy whose looks are attributes of its own: no classes, no variables, no handles. */
const inlined = (svg: SVGSVGElement): SVGSVGElement => {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const from = [svg, ...svg.querySelectorAll("*")];
  const to = [copy, ...copy.querySelectorAll("*")];
  from.forEach((element, i) => {
    const target = to[i];
    if (!(target instanceof SVGElement)) return;
    const style = getComputedStyle(element);
    const parent = i === 0 || element.parentElement === null ? null : getComputedStyle(element.parentElement);
    for (const name of ["class", "style", "tabindex", ...COPIED]) target.removeAttribute(name);
    for (const name of COPIED) {
      const value = style.getPropertyValue(name);
      const given = INHERITED.has(name) ? parent?.getPropertyValue(name) : INITIAL[name];
      if (value !== "" && value !== given) target.setAttribute(name, value);
    }
  });
  for (const handle of copy.querySelectorAll("[role=slider]")) handle.remove();
  return copy;
};

/** A file as it stands in an address. */
const asData = async (url: string): Promise<string> => {
  const blob = await (await fetch(url)).blob();
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(reader.error ?? new Error("a face could not be read"));
    reader.readAsDataURL(blob);
  });
};
let faces: Promise<string> | null = null;

/** The faces of the page's type for plain letters, with the type inside: a file shows the same words everywhere. */
export const typeInside = (): Promise<string> => {
  faces ??= (async () => {
    const rules = [...document.styleSheets].flatMap((sheet) => [...sheet.cssRules]).filter((r) => r instanceof CSSFontFaceRule);
    const parts: string[] = [];
    for (const { style, parentStyleSheet } of rules) {
      const family = style.getPropertyValue("font-family");
      const plain =
        /U\+0-FF|U\+0000-00FF/i.test(style.getPropertyValue("unicode-range")) && style.getPropertyValue("font-style") !== "italic";
      const address = /url\("?([^")]+)"?\)/.exec(style.getPropertyValue("src"))?.[1];
      if (!plain || address === undefined || !family.includes("Atkinson")) continue;
      const data = await asData(new URL(address, parentStyleSheet?.href ?? location.href).href);
      parts.push(`@font-face{font-family:${family};font-weight:200 800;src:url(${data}) format("woff2")}`);
    }
    return parts.join("");
  })();
  faces.catch(() => {
    faces = null;
  });
  return faces;
};

const LINE_PX = 16;
const LETTER_PX = 6.4;

/** Words broken into lines of a width. */
const broken = (text: string, width: number): string[] => {
  const most = Math.max(20, Math.floor(width / LETTER_PX));
  const lines: string[] = [];
  let line = "";
  for (const word of text.split(/\s+/)) {
    if (line !== "" && line.length + 1 + word.length > most) {
      lines.push(line);
      line = word;
    } else line = line === "" ? word : `${line} ${word}`;
  }
  return line === "" ? lines : [...lines, line];
};

/**
 * Drawings of one width under each other (one marked "over" lies over the one before), with a title beneath and what
 * the page says in words, as the text of one SVG file.
 * @param type rules of the faces, as `typeInside` gives them.
 */
export const svgOf = (
  drawings: readonly SVGSVGElement[],
  title: string,
  note: string,
  words: readonly string[] = [],
  type = "",
): string => {
  const width = Math.max(...drawings.map((d) => d.clientWidth));
  const style = getComputedStyle(document.documentElement);
  const paper = style.getPropertyValue("--paper").trim() || "#fff";
  const ink = style.getPropertyValue("--ink").trim() || "#000";
  let top = 0;
  let before = 0;
  const parts = drawings.map((d) => {
    const copy = inlined(d);
    const over = d.dataset.drawing === "over";
    copy.setAttribute("y", String(over ? before : top));
    copy.setAttribute("width", String(d.clientWidth));
    copy.setAttribute("height", String(d.clientHeight));
    copy.setAttribute("overflow", "hidden");
    if (!over) {
      before = top;
      top += d.clientHeight;
    }
    return new XMLSerializer().serializeToString(copy);
  });
  const escaped = (text: string): string => text.replace(/&/g, "&amp;").replace(/</g, "&lt;");
  const font = 'font-family="Atkinson Hyperlegible Next Variable, Atkinson Hyperlegible Next, sans-serif"';
  const lines = words.flatMap((w) => broken(w, width - 20));
  const height = top + TITLE_PX + (lines.length === 0 ? 0 : lines.length * LINE_PX + 10);
  const text = lines.map(
    (line, i) => `<text x="10" y="${top + TITLE_PX + 12 + i * LINE_PX}" ${font} font-size="12.5" fill="${ink}">${escaped(line)}</text>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">
${type === "" ? "" : `<style>${type}</style>`}<rect width="100%" height="100%" fill="${paper}"/>${parts.join("\n")}
<path d="M0 ${top + 0.5}H${width}" stroke="${ink}"/>
<text x="10" y="${top + 17}" ${font} font-size="14" font-weight="700" fill="${ink}">${escaped(title)}</text>
<text x="10" y="${top + 33}" ${font} font-size="12" fill="${ink}">${escaped(note)}</text>
${text.join("\n")}
</svg>`;
};

/** The same as a picture of points, twice as fine as the screen. */
export const pngOf = async (svg: string): Promise<Blob> => {
  const image = new Image();
  const url = URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }));
  try {
    await new Promise<void>((resolve, reject) => {
      image.onload = () => resolve();
      image.onerror = () => reject(new Error("the drawing could not be read back"));
      image.src = url;
    });
    const canvas = document.createElement("canvas");
    canvas.width = image.width * SCALE;
    canvas.height = image.height * SCALE;
    canvas.getContext("2d")!.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise((resolve, reject) =>
      canvas.toBlob((blob) => (blob === null ? reject(new Error("no picture came out")) : resolve(blob)), "image/png"),
    );
  } finally {
    URL.revokeObjectURL(url);
  }
};
