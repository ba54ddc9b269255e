import { readAhead } from "@/app/_server/ahead";
import { GroundSheet } from "@/ui/sheets/ground/ground-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string }> }) => {
  const { jobId } = await params;
  readAhead(`/api/jobs/${jobId}`, `/api/jobs/${jobId}/verdicts`, `/api/jobs/${jobId}/datasets`);
  return <GroundSheet jobId={jobId} />;
};
export default Page;
