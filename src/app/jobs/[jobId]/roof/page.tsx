import { RoofSheet } from "@/ui/sheets/roof/roof-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string }> }) => <RoofSheet jobId={(await params).jobId} />;
export default Page;
