import Link from 'next/link';
import { Shell } from '@/features/shell/Shell';

export default function NotFound() {
  return (
    <Shell place="Takes">
      <div className="mx-4 mt-16 sm:mx-8">
        <h1 className="text-[64px] leading-[72px] font-[640] tracking-tight">
          There is nothing at this address.
        </h1>
        <p className="mt-3 max-w-3xl text-2xl text-soft">
          This chart or take does not exist, or has been removed.
        </p>
        <p className="mt-8 flex gap-4">
          <Link className="go" href="/charts">
            Open the charts
          </Link>
          <Link className="quiet" href="/takes">
            All takes
          </Link>
        </p>
      </div>
    </Shell>
  );
}
