/**
 * Hands a file to whoever sits before the page.
 * @param {Blob} file
 * @param {string} name
 */
export function save(file, name) {
    const address = URL.createObjectURL(file);
    Object.assign(document.createElement('a'), { href: address, download: name }).click();
    setTimeout(() => URL.revokeObjectURL(address), 60_000);
}
