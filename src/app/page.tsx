import { JobsSheet } from "@/ui/sheets/jobs/jobs-sheet";

const Page = () => <JobsSheet />;
export default Page;
