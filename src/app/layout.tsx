import type { Metadata, Viewport } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { Providers } from "@/ui/frame/providers";
import "./globals.css";

export const metadata: Metadata = { title: "Dry Arc", description: "Plan radio bridge links between buildings before going on site." };
export const viewport: Viewport = { width: "device-width", initialScale: 1 };

const Layout = async ({ children }: { children: ReactNode }) => {
  // Read so that every page is made for its request and carries that request's nonce.
  await headers();
  return (
    <html lang="en-GB" suppressHydrationWarning>
      <body>
        <Providers>{children}</Providers>
      </body>
    </html>
  );
};

export default Layout;
