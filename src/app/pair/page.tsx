import { PairSheet } from "@/ui/sheets/door/come-in-sheets";

const Page = () => <PairSheet />;
export default Page;
