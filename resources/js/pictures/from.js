/** @param {string} project its address */
const entryOf = (project) => `pictures from ${project}`;

/**
 * Notes where the workbench looked from when somebody left it for pictures: views without a camera are taken from there.
 * @param {string} project its address
 * @param {import('../canvas/camera.js').Sight} sight
 */
export function leaveFrom(project, sight) {
    sessionStorage.setItem(entryOf(project), JSON.stringify(sight));
}

/** @param {string} project its address @returns {import('../canvas/camera.js').Sight | null} null where nobody came from its workbench */
export function leftFrom(project) {
    return JSON.parse(sessionStorage.getItem(entryOf(project)) ?? 'null');
}
