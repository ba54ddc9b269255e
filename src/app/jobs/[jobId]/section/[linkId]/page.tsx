import { SectionSheet } from "@/ui/sheets/section/section-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string; linkId: string }> }) => {
  const { jobId, linkId } = await params;
  return <SectionSheet jobId={jobId} linkId={linkId} />;
};
export default Page;
