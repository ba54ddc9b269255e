import { PeopleSheet } from "@/ui/sheets/people/people-sheet";

const Page = () => <PeopleSheet />;
export default Page;
