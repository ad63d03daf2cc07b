/**
 * What the pointer does over the canvas, but for turning: a click picks, the other button asks for a menu, and what is under a resting
 * pointer is outlined.
 * @param {import('./canvas.js').Canvas} canvas
 */
export function listenToPointer(canvas) {
    const { surface } = canvas;
    /** @type {{x: number, y: number} | null} */
    let down = null;
    /** @type {PointerEvent | null} */
    let pointer = null;
    let asked = false;
    surface.addEventListener('contextmenu', (event) => event.preventDefault());
    surface.addEventListener('pointerdown', (event) => {
        surface.focus();
        if (event.button !== 1) down = { x: event.clientX, y: event.clientY };
    });
    surface.addEventListener('pointerup', (event) => {
        if (event.button === 1 || !down) return;
        const still = Math.hypot(event.clientX - down.x, event.clientY - down.y) < 5;
        down = null;
        if (still && event.button === 2)
            canvas.report('shelf:menu', { number: numberUnder(canvas, event), x: event.clientX, y: event.clientY });
        else if (still && canvas.clicks) click(canvas, event);
    });
    surface.addEventListener('pointermove', (event) => {
        pointer = event;
        if (event.buttons !== 0 || asked || event.pointerType === 'touch') return;
        asked = true;
        requestAnimationFrame(() => {
            asked = false;
            if (pointer) canvas.hover(canvas.takenBy(numberUnder(canvas, pointer)));
        });
    });
    surface.addEventListener('dblclick', (event) => {
        const number = numberUnder(canvas, event);
        if (canvas.clicks && number > 0) canvas.report('shelf:into', { part: number });
    });
    surface.addEventListener('pointerleave', () => {
        pointer = null;
        canvas.hover(0);
    });
}

/** @param {import('./canvas.js').Canvas} canvas @param {MouseEvent} event */
function numberUnder(canvas, event) {
    const { left, top } = canvas.surface.getBoundingClientRect();
    return canvas.numberAt(event.clientX - left, event.clientY - top);
}

/** @param {import('./canvas.js').Canvas} canvas @param {PointerEvent} event */
function click(canvas, event) {
    const { left, top } = canvas.surface.getBoundingClientRect();
    const [x, y] = [event.clientX - left, event.clientY - top];
    const number = canvas.numberAt(x, y);
    const mode = event.shiftKey || event.ctrlKey || event.metaKey ? 'add' : event.altKey ? 'remove' : 'replace';
    canvas.outline(0);
    if (number === 0 && mode !== 'replace') return;
    canvas.report('shelf:pick', { part: number, mode, guarded: canvas.isGuarded(number), x, y });
}
