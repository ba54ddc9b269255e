import { KeptSheet } from "@/ui/sheets/roof/kept-sheet";

const Page = () => <KeptSheet />;
export default Page;
