import Link from "next/link";

const NotFound = () => (
  <main className="mx-auto grid max-w-[64ch] gap-4 p-10">
    <h1 className="m-0 text-word font-heading">There is no such page</h1>
    <p className="m-0">The address may be cut short, or what it named was taken away. Nothing is lost: the register has every job.</p>
    <Link className="press justify-self-start" href="/">
      Register of jobs
    </Link>
  </main>
);

export default NotFound;
