import { readAhead } from "@/app/_server/ahead";
import { HubSheet } from "@/ui/sheets/hub/hub-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string }> }) => {
  const { jobId } = await params;
  readAhead(`/api/jobs/${jobId}/verdicts`, `/api/jobs/${jobId}/hubs`, `/api/jobs/${jobId}`);
  return <HubSheet jobId={jobId} hubId={null} />;
};
export default Page;
