import { readAhead } from "@/app/_server/ahead";
import { AirSheet } from "@/ui/sheets/air/air-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string }> }) => {
  const { jobId } = await params;
  readAhead(`/api/jobs/${jobId}/verdicts`, `/api/jobs/${jobId}/air`, `/api/jobs/${jobId}/air/losses`, `/api/jobs/${jobId}`);
  return <AirSheet jobId={jobId} />;
};
export default Page;
