'use client';

import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import type { ReportFileView } from '@/contracts/intake';
import { isTyping } from '@/screens/frame/keys/typing';
import { sayFailure } from '@/screens/tray/use-tray';
import { useRoutes } from '@/screens/frame/data/routes';
import { NoAnswer } from '@/ui/ask';

/**
 * Brings files, one after another, and what is pasted onto the screen.
 * @param onBrought hears of what was stored: one file, or those of several and of archives
 */
export function useBring(onBrought: (files: ReportFileView[]) => void): {
  bring: (files: readonly File[]) => Promise<void>;
  bringText: (text: string) => void;
  /** name of the file on its way */
  busy: string | null;
} {
  const { call } = useRoutes();
  const [busy, setBusy] = useState<string | null>(null);

  async function bring(files: readonly File[]) {
    const brought: ReportFileView[] = [];
    for (const file of files) {
      setBusy(file.name);
      try {
        const query = { name: file.name, size: String(file.size) };
        const answer = await call('PUT intake', { query, body: file });
        brought.push(...answer.files);
      } catch (error) {
        if (error instanceof NoAnswer) toast.error(`${file.name} was not brought. ${error.message}`);
        else sayFailure(error);
      }
    }
    setBusy(null);
    if (brought.length > 0) onBrought(brought);
  }

  const bringText = (text: string) => {
    if (text.trim() === '') {
      toast.error('There is nothing to paste. Copy cells in a spreadsheet first, with their header.');
      return;
    }
    const at = new Date().toTimeString().slice(0, 5);
    void bring([new File([text], `pasted at ${at}`, { type: 'text/plain' })]);
  };

  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      if (isTyping(event.target) || !event.clipboardData) return;
      const files = [...event.clipboardData.files];
      if (files.length > 0) void bring(files);
      else bringText(event.clipboardData.getData('text/plain'));
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  });

  return { bring, bringText, busy };
}
