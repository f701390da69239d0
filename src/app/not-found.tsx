import Link from 'next/link';
import { Notice } from '@/screens/start/notice';

export default function NotFound() {
  return (
    <Notice title="Nothing stands here">
      <p>The address names no account or screen of Gate Post. It may be an old link, or hold a slip.</p>
      <p className="mt-2">
        <Link className="text-pine underline" href="/">
          To the accounts
        </Link>
      </p>
    </Notice>
  );
}
