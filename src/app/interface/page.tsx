import { InterfaceSheet } from "@/ui/sheets/interface/interface-sheet";

const Page = () => <InterfaceSheet />;
export default Page;
