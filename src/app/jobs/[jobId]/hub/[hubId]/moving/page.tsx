import { readAhead } from "@/app/_server/ahead";
import { HubSheet } from "@/ui/sheets/hub/hub-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string; hubId: string }> }) => {
  const { jobId, hubId } = await params;
  readAhead(`/api/jobs/${jobId}/verdicts`, `/api/jobs/${jobId}/hubs`, "/api/hardware", `/api/jobs/${jobId}`);
  return <HubSheet jobId={jobId} hubId={hubId} moving />;
};
export default Page;
