/**
 * What a page says of its canvas.
 * @param {HTMLElement} page with the budget, how often a finished picture is drawn again, and in how many pixels
 * @param {string} base where everything that is drawn is asked for
 * @param {Partial<import('./canvas.js').Settings>} [own] what is otherwise on this page
 * @returns {import('./canvas.js').Settings}
 */
export function settingsOf({ dataset: { budget = '{}', smoothing, resolution = '1' } }, base, own) {
    return {
        records: `${base}/records`,
        packs: `${base}/packs`,
        textures: `${base}/textures`,
        versions: `${base}/versions`,
        meshes: `${base}/meshes`,
        budget: JSON.parse(budget),
        smoothing: Number(smoothing),
        resolution: Number(resolution),
        materials: JSON.parse(document.getElementById('materials')?.textContent ?? '{}'),
        csrf: /** @type {HTMLMetaElement} */ (document.querySelector('meta[name=csrf-token]')).content,
        ...own,
    };
}
