import { readAhead } from "@/app/_server/ahead";
import { PackSheet } from "@/ui/sheets/pack/pack-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string }> }) => {
  const { jobId } = await params;
  readAhead(`/api/jobs/${jobId}/verdicts`, `/api/jobs/${jobId}`);
  return <PackSheet jobId={jobId} linkId={null} />;
};
export default Page;
