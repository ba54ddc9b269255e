import { readAhead } from "@/app/_server/ahead";
import { PackSheet } from "@/ui/sheets/pack/pack-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string; linkId: string }> }) => {
  const { jobId, linkId } = await params;
  readAhead(`/api/jobs/${jobId}/verdicts`, `/api/jobs/${jobId}`);
  return <PackSheet jobId={jobId} linkId={linkId} />;
};
export default Page;
