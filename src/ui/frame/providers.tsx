"use client";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { mayRecover } from "../api/client";
import { PreferencesProvider } from "../state/preferences";
import { OutboxStrip } from "./outbox-strip";

const RETRY_MS = 2000;
/** What was read this shortly ago is not read again by a part of the page that comes a little later; what changes is told. */
const FRESH_MS = 2000;

const makeClient = (): QueryClient =>
  new QueryClient({
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

export const Providers = ({ children }: { children: ReactNode }) => {
  const [client] = useState(makeClient);
  return (
    <QueryClientProvider client={client}>
      <PreferencesProvider>
        <OutboxStrip />
        {children}
      </PreferencesProvider>
    </QueryClientProvider>
  );
};
