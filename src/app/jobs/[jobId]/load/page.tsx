import { readAhead } from "@/app/_server/ahead";
import { LoadSheet } from "@/ui/sheets/load/load-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string }> }) => {
  const { jobId } = await params;
  readAhead(`/api/jobs/${jobId}/verdicts`, `/api/jobs/${jobId}/network`, `/api/jobs/${jobId}/brief`, `/api/jobs/${jobId}`);
  return <LoadSheet jobId={jobId} />;
};
export default Page;
