import { openNews } from "@/data/listen";

const globals = globalThis as unknown as { dryArcNews?: ReturnType<typeof openNews> };

/** The one connection of this process that listens for news of jobs. */
export const news = (): ReturnType<typeof openNews> => {
  globals.dryArcNews ??= openNews(process.env.DATABASE_URL ?? "");
  return globals.dryArcNews;
};
