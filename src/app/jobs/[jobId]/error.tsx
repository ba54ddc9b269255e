"use client";
import { PageFault } from "@/ui/frame/page-fault";

const PageError = ({ error, reset }: { error: Error; reset: () => void }) => <PageFault reason={error.message} again={reset} />;

export default PageError;
