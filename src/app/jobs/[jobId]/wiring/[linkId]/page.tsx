import { readAhead } from "@/app/_server/ahead";
import { WiringSheet } from "@/ui/sheets/wiring/wiring-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string; linkId: string }> }) => {
  const { jobId, linkId } = await params;
  readAhead(`/api/jobs/${jobId}/verdicts`, `/api/jobs/${jobId}/wirings`, `/api/jobs/${jobId}`, "/api/hardware/parts", "/api/hardware");
  return <WiringSheet jobId={jobId} linkId={linkId} />;
};
export default Page;
