/**
 * What the canvas reports: hovering names what a click would pick, clicks pick, and the line below says what is still on its way.
 * @param {import('./workbench.js').Workbench} bench
 */
export function listenToCanvas(bench) {
    const element = /** @type {HTMLElement} */ (document.getElementById('canvas'));
    const tag = /** @type {HTMLElement} */ (document.getElementById('hover-name'));
    /** @type {Map<number, {name: string, layer: string}>} */
    const names = new Map();
    let hovered = 0;
    element.addEventListener('pointermove', (event) => {
        const { left, top, width } = element.getBoundingClientRect();
        const x = event.clientX - left;
        tag.style.left = x > width - 240 ? '' : `${x + 14}px`;
        tag.style.right = x > width - 240 ? `${width - x + 10}px` : '';
        tag.style.top = `${event.clientY - top + 16}px`;
    });
    element.addEventListener('shelf:hover', async (event) => {
        const { number, guarded } = /** @type {CustomEvent} */ (event).detail;
        const asked = (hovered = number);
        if (number === 0) return void (tag.hidden = true);
        await new Promise((resolve) => setTimeout(resolve, 60));
        if (asked !== hovered) return;
        if (!names.has(number)) names.set(number, await bench.server.json(`/objects/${number}`));
        const about = names.get(number);
        if (asked !== hovered || !about) return;
        tag.replaceChildren(
            about.name,
            ' ',
            Object.assign(document.createElement('small'), { textContent: `${about.layer}${guarded ? ' · guarded' : ''}` }),
        );
        tag.hidden = false;
    });
    element.addEventListener('shelf:pick', async (event) => {
        const { part, mode, guarded } = /** @type {CustomEvent} */ (event).detail;
        bench.finder.marker.mark(null);
        if (guarded) return bench.say('That object is guarded: pick it in the ledger, or open it first.');
        if (part === 0) return bench.command('clear-pick');
        bench.pick({ keys: `O${await bench.taking.takenBy(part)}`, mode });
    });
    element.addEventListener('shelf:into', async (event) => {
        const { part } = /** @type {CustomEvent} */ (event).detail;
        const number = await bench.taking.takenBy(part);
        // A part alone holds nothing to step into.
        if (number === part) return;
        const about = await bench.server.json(`/objects/${number}`);
        if (about) bench.taking.stepInto(number, about.name);
    });
    element.addEventListener('shelf:menu', (event) => {
        const { number, x, y } = /** @type {CustomEvent} */ (event).detail;
        bench.menus.openCanvas(number, x, y);
    });
    element.addEventListener('shelf:drawn', (event) => {
        const { missing, done, loading } = /** @type {CustomEvent} */ (event).detail;
        const line = /** @type {HTMLElement} */ (document.getElementById('on-its-way'));
        const words =
            missing > 0 || loading
                ? missing > 0
                    ? `${missing.toLocaleString('en')} packs on their way`
                    : 'more objects on their way'
                : done
                  ? 'everything is here'
                  : 'drawing';
        if (line.textContent !== words) line.textContent = words;
    });
    addEventListener('pagehide', () => bench.looking.remember());
    document.addEventListener('visibilitychange', () => document.hidden && bench.looking.remember());
}
