import { readAhead } from "@/app/_server/ahead";
import { WiringSheet } from "@/ui/sheets/wiring/wiring-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string }> }) => {
  const { jobId } = await params;
  readAhead(`/api/jobs/${jobId}/verdicts`, `/api/jobs/${jobId}/wirings`, `/api/jobs/${jobId}`, "/api/hardware/parts", "/api/hardware");
  return <WiringSheet jobId={jobId} linkId={null} />;
};
export default Page;
