import JSZip from 'jszip';

/** A ZIP archive of files by name. */
export async function zipped(files: Record<string, string | Uint8Array>): Promise<Uint8Array> {
  const archive = new JSZip();
  for (const [name, content] of Object.entries(files)) archive.file(name, content);
  return archive.generateAsync({ type: 'uint8array', compression: 'DEFLATE' });
}
