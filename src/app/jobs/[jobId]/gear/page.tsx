import { GearSheet } from "@/ui/sheets/gear/gear-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string }> }) => <GearSheet jobId={(await params).jobId} />;
export default Page;
