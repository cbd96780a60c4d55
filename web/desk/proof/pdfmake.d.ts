/** What is used of pdfmake, which brings no types of its own. */
declare module 'pdfmake/build/pdfmake.min.js' {
  const pdfMake: {
    addVirtualFileSystem(files: Record<string, string>): void
    createPdf(definition: object): { getBuffer(): Promise<Uint8Array> }
  }
  export default pdfMake
}
declare module 'pdfmake/build/vfs_fonts.js' {
  const fonts: Record<string, string>
  export default fonts
}
