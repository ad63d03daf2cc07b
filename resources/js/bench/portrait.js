/** A small picture of the pick alone, beside its details. */
export class Portrait {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
    }

    /** @param {HTMLElement} place of the details */
    async draw(place) {
        const { canvas } = this.bench;
        const picture = await canvas.portrait(212, 118);
        if (picture === '' || !place.isConnected) return;
        const image = Object.assign(document.createElement('img'), { src: picture, alt: 'The pick alone', className: 'portrait' });
        place.querySelector('.portrait')?.remove();
        place.prepend(image);
    }
}
