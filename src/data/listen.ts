import { Client } from "pg";
import { JOB_CHANNEL, type JobNews } from "./changes";

type Listener = (news: JobNews) => void;

const RETRY_MS = 1000;

/** One listening connection for many listeners; it comes back by itself when the database does. */
export const openNews = (url: string): { readonly listen: (l: Listener) => () => void } => {
  const listeners = new Set<Listener>();
  let client: Client | null = null;
  let opening = false;
  const open = async (): Promise<void> => {
    if (opening || client !== null || listeners.size === 0) return;
    opening = true;
    const next = new Client({ connectionString: url, connectionTimeoutMillis: 5000 });
    const lost = (): void => {
      if (client === next) client = null;
      void next.end().catch(() => undefined);
      setTimeout(() => void open(), RETRY_MS);
    };
    next.on("error", lost);
    next.on("notification", (message) => {
      try {
        const news = JSON.parse(message.payload ?? "") as JobNews;
        for (const l of listeners) l(news);
      } catch {
        // Not one of ours.
      }
    });
    try {
      await next.connect();
      await next.query(`LISTEN ${JOB_CHANNEL}`);
      client = next;
      opening = false;
      // What was told while nobody listened is made up for: everything may have changed.
      for (const l of listeners) l({ jobId: "*", entity: "*", clientId: null });
    } catch {
      opening = false;
      next.removeListener("error", lost);
      next.on("error", () => undefined);
      void next.end().catch(() => undefined);
      setTimeout(() => void open(), RETRY_MS);
    }
  };
  return {
    listen: (l) => {
      listeners.add(l);
      void open();
      return () => {
        listeners.delete(l);
      };
    },
  };
};
