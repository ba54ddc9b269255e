// npm run called -- --secret=whsec_… [--port=4699]   a program that is called: prints what it is told, and whether it is really from
// this server. A stand-in for somebody's own, and how such a one judges a signature. Listens on loopback alone.
import { createHmac, timingSafeEqual } from "node:crypto";
import { createServer } from "node:http";

const given = Object.fromEntries(process.argv.slice(2).map((a) => /^--(\w+)=(.*)$/.exec(a)?.slice(1) ?? ["unknown", a]));
if (given.unknown !== undefined || !/^whsec_/.test(given.secret ?? "")) {
  console.error(
    "dry-arc: npm run called -- --secret=whsec_… [--port=4699]; the secret is shown under People, Programs, when an address is made.",
  );
  process.exit(2);
}
const key = Buffer.from(given.secret.slice("whsec_".length), "base64");
const port = Number(given.port ?? 4699);
const MOST_BYTES = 1_000_000;
const MOST_APART_S = 300;

/** Why a call is not to be trusted; null when it is. */
const distrust = (head, body) => {
  const [id, at, signature] = ["webhook-id", "webhook-timestamp", "webhook-signature"].map((n) => String(head[n] ?? ""));
  if (Math.abs(Date.now() / 1000 - Number(at)) > MOST_APART_S) return "it is too old, or the clocks differ";
  const own = Buffer.from(`v1,${createHmac("sha256", key).update(`${id}.${at}.${body}`).digest("base64")}`);
  const theirs = Buffer.from(signature);
  return own.length === theirs.length && timingSafeEqual(own, theirs) ? null : "it is not signed by that secret";
};

const seen = new Set();
createServer((request, response) => {
  let body = "";
  request.setEncoding("utf8");
  request.on("data", (piece) => {
    body += piece;
    if (body.length > MOST_BYTES) request.destroy();
  });
  request.on("end", () => {
    const why = request.method === "POST" ? distrust(request.headers, body) : "it is no POST";
    if (why !== null) {
      console.log(`refused: ${why}`);
      response.writeHead(403).end();
      return;
    }
    const id = request.headers["webhook-id"];
    if (seen.has(id)) console.log(`again: ${id}`);
    else {
      const { type, changes } = JSON.parse(body);
      console.log(
        type === "try" ? "a try: it works" : changes.map((c) => `${c.at} ${c.job}: ${c.action} ${c.kind} ${c.recordId}`).join("\n"),
      );
    }
    seen.add(id);
    response.writeHead(200).end();
  });
})
  .on("error", (error) => {
    console.error(`dry-arc: ${error.message}`);
    process.exit(1);
  })
  .listen(port, "127.0.0.1", () => console.log(`dry-arc: waiting for calls at http://127.0.0.1:${port}`));
