"use client";
import Link from "next/link";
import type { ReactNode } from "react";
import { Logo } from "./logo";

/** A page beside the jobs: of the firm, or of oneself. */
export const House = ({ title, action, children }: { title: string; action?: ReactNode; children: ReactNode }) => (
  <div className="min-h-dvh p-2">
    <div className="grid min-h-[calc(100dvh-16px)] grid-rows-[auto_minmax(0,1fr)] border-[1.6px] border-ink">
      <header className="flex min-h-[70px] flex-wrap items-center gap-x-6 border-b border-ink pr-4">
        <Link
          prefetch={false}
          href="/"
          aria-label="Dry Arc, register of jobs"
          className="flex h-[70px] w-[114px] flex-col justify-center border-r border-ink px-4 text-ink no-underline"
        >
          <Logo />
          <span className="pt-1 text-name font-heading">Dry Arc</span>
        </Link>
        <h1 className="m-0 text-word font-heading leading-10 max-[599px]:basis-full max-[599px]:px-4 max-[599px]:text-title max-[599px]:leading-8">
          {title}
        </h1>
        <div className="ml-auto flex items-center gap-5 py-2 max-[899px]:ml-0 max-[899px]:pl-4">{action}</div>
      </header>
      <main className="min-w-0 overflow-x-auto px-4 py-4">{children}</main>
    </div>
  </div>
);
