/** Hands a file to the browser for saving. */
export function saveFile(name: string, contents: Uint8Array | string, type: string): void {
  const part = typeof contents === 'string' ? contents : contents.slice().buffer;
  const url = URL.createObjectURL(new Blob([part], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
