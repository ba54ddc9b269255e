import { JoinSheet } from "@/ui/sheets/door/come-in-sheets";

const Page = () => <JoinSheet />;
export default Page;
