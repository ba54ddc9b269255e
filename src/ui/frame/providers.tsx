"use client";
import { QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { ApiError, mayRecover } from "../api/client";
import { ME } from "../state/me";
import { PreferencesProvider } from "../state/preferences";
import { OutboxStrip } from "./outbox-strip";
import { Signed } from "./signed";

const RETRY_MS = 2000;
/** What was read this shortly ago is not read again by a part of the page that comes a little later; what changes is told. */
const FRESH_MS = 2000;

const makeClient = (): QueryClient => {
  const client: QueryClient = new QueryClient({
    queryCache: new QueryCache({
      // Whoever is not let in any more hears of it, whatever they asked for.
      onError: (error, query) => {
        if (error instanceof ApiError && error.status === 401 && query.queryKey[0] !== ME[0])
          void client.invalidateQueries({ queryKey: ME });
      },
    }),
    defaultOptions: {
      queries: {
        // A database or server that is away comes back by itself; anything else is said at once.
        retry: (_count, error) => mayRecover(error),
        retryDelay: RETRY_MS,
        networkMode: "always",
        staleTime: FRESH_MS,
      },
    },
  });
  return client;
};

export const Providers = ({ children }: { children: ReactNode }) => {
  const [client] = useState(makeClient);
  return (
    <QueryClientProvider client={client}>
      <PreferencesProvider>
        <Signed />
        <OutboxStrip />
        {children}
      </PreferencesProvider>
    </QueryClientProvider>
  );
};
