import { readAhead } from "@/app/_server/ahead";
import { KitSheet } from "@/ui/sheets/kit/kit-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string; linkId: string }> }) => {
  const { jobId, linkId } = await params;
  readAhead(
    `/api/jobs/${jobId}/verdicts`,
    `/api/jobs/${jobId}/wirings`,
    `/api/jobs/${jobId}/kit`,
    `/api/jobs/${jobId}/picks`,
    `/api/jobs/${jobId}`,
    "/api/hardware/parts",
    "/api/hardware",
  );
  return <KitSheet jobId={jobId} linkId={linkId} />;
};
export default Page;
