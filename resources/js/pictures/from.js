/** Where the workbench looked from when somebody left it for pictures: views without a camera are taken from there. */
const ENTRY = 'pictures-from';

/** @param {import('../canvas/camera.js').Sight} sight */
export function leaveFrom(sight) {
    sessionStorage.setItem(ENTRY, JSON.stringify(sight));
}

/** @returns {import('../canvas/camera.js').Sight | null} */
export function leftFrom() {
    return JSON.parse(sessionStorage.getItem(ENTRY) ?? 'null');
}
