/**
 * Says to the styles how much of the canvas the region tools take at its top, which stand in two rows where it is narrow, how much the
 * parked picks and pins take at its bottom, where the canvas begins, and whether what floats between has to stand one above the other.
 * @param {HTMLElement} canvas
 */
export function keepRoom(canvas) {
    const [tools, parked, section] = ['.region-tools', '.parked', '.section-panel'].map(
        (name) => /** @type {HTMLElement} */ (canvas.querySelector(name)),
    );
    const measure = () => {
        const { style, classList } = document.body;
        style.setProperty('--canvas-top', `${canvas.getBoundingClientRect().top}px`);
        style.setProperty('--below-tools', `${tools.offsetTop + tools.offsetHeight + 12}px`);
        style.setProperty('--above-parked', `${canvas.clientHeight - parked.offsetTop + 12}px`);
        style.setProperty('--below-section', `${section.offsetTop + section.offsetHeight + 8}px`);
        classList.toggle('has-little-canvas', canvas.clientWidth < 620);
        classList.toggle('has-low-canvas', canvas.clientHeight < 520);
        classList.toggle('has-lowest-canvas', canvas.clientHeight < 320);
    };
    const observer = new ResizeObserver(measure);
    // What is isolated, and what was said, move what stands below them.
    const above = ['isolated', 'message'].map((id) => /** @type {HTMLElement} */ (document.getElementById(id)));
    [canvas, tools, parked, section, ...above].forEach((element) => observer.observe(element));
}
