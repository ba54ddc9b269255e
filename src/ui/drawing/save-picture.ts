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

/** Several drawings of one width under each other, with a title beneath, as the text of one SVG file. */
export const svgOf = (drawings: readonly SVGSVGElement[], title: string, note: string): string => {
  const width = Math.max(...drawings.map((d) => d.clientWidth));
  const style = getComputedStyle(document.documentElement);
  const paper = style.getPropertyValue("--paper").trim() || "#fff";
  const ink = style.getPropertyValue("--ink").trim() || "#000";
  let top = 0;
  const parts = drawings.map((d) => {
    const copy = inlined(d);
    copy.setAttribute("y", String(top));
    copy.setAttribute("width", String(d.clientWidth));
    copy.setAttribute("height", String(d.clientHeight));
    copy.setAttribute("overflow", "hidden");
    top += d.clientHeight;
    return new XMLSerializer().serializeToString(copy);
  });
  const escaped = (text: string): string => text.replace(/&/g, "&amp;").replace(/</g, "&lt;");
  const font = 'font-family="Atkinson Hyperlegible Next, Atkinson Hyperlegible, sans-serif"';
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${top + TITLE_PX}" viewBox="0 0 ${width} ${top + TITLE_PX}">
<rect width="100%" height="100%" fill="${paper}"/>${parts.join("\n")}
<path d="M0 ${top + 0.5}H${width}" stroke="${ink}"/>
<text x="10" y="${top + 17}" ${font} font-size="14" font-weight="700" fill="${ink}">${escaped(title)}</text>
<text x="10" y="${top + 33}" ${font} font-size="12" fill="${ink}">${escaped(note)}</text>
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
