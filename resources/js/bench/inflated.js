/** @param {string} text deflated bytes in base64 @returns {Promise<Uint8Array>} */
export async function inflated(text) {
    const packed = Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
    const stream = new Blob([packed]).stream().pipeThrough(new DecompressionStream('deflate-raw'));
    return new Uint8Array(await new Response(stream).arrayBuffer());
}
