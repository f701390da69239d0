import { Notice } from '@/screens/start/notice';

export default function Loading() {
  return (
    <Notice title="Opening">
      <p role="status" className="text-soft">
        The account is being read.
      </p>
    </Notice>
  );
}
