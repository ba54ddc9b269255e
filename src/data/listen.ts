import { Client } from "pg";
import { JOB_CHANNEL, type JobNews } from "./changes";

const RETRY_MS = 1000;

/**
 * Listens to channels of the database; comes back by itself when the database does.
 * @param told.back called on every connection: what was told while nobody listened is to be made up for.
 * @returns a function that ends it.
 */
export const openListener = (
  url: string,
  channels: readonly string[],
  told: { readonly message: (channel: string, payload: string) => void; readonly back: () => void },
): (() => void) => {
  let client: Client | null = null;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let ended = false;
  const open = async (): Promise<void> => {
    timer = null;
    if (ended) return;
    const next = new Client({ connectionString: url, connectionTimeoutMillis: 5000, keepAlive: true });
    client = next;
    let lost = false;
    const fail = (): void => {
      if (lost) return;
      lost = true;
      if (client === next) client = null;
      next.removeAllListeners("notification");
      void next.end().catch(() => undefined);
      if (!ended) timer ??= setTimeout(() => void open(), RETRY_MS);
    };
    // Stays for the life of the connection: an error after the first one has nobody else to hear it.
    next.on("error", fail);
    next.on("end", fail);
    next.on("notification", (m) => told.message(m.channel, m.payload ?? ""));
    try {
      await next.connect();
      for (const channel of channels) await next.query(`LISTEN ${channel}`);
      if (!lost) told.back();
    } catch {
      fail();
    }
  };
  void open();
  return () => {
    ended = true;
    if (timer !== null) clearTimeout(timer);
    void client?.end().catch(() => undefined);
  };
};

type Listener = (news: JobNews) => void;

/** News of jobs for many listeners, over one connection that stays from the first of them on. */
export const openNews = (url: string): { readonly listen: (l: Listener) => () => void } => {
  const listeners = new Set<Listener>();
  let opened = false;
  const tell = (news: JobNews): void => {
    for (const l of [...listeners]) l(news);
  };
  return {
    listen: (l) => {
      listeners.add(l);
      if (!opened)
        openListener(url, [JOB_CHANNEL], {
          message: (_channel, payload) => {
            let news: JobNews;
            try {
              news = JSON.parse(payload) as JobNews;
            } catch {
              return;
            }
            tell(news);
          },
          back: () => tell({ jobId: "*", entity: "*", id: null, clientId: null }),
        });
      opened = true;
      return () => {
        listeners.delete(l);
      };
    },
  };
};
