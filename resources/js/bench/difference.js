/**
 * The menu of what the desk and pictures show differently: it is picked or tinted; and of which view the pictures are.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} from
 */
export function openDifference(bench, from) {
    const button = /** @type {HTMLElement} */ (document.querySelector('.differ'));
    const { of = 'view', view = '' } = button.dataset;
    const pick = (/** @type {string} */ which) => () => bench.server.ask('POST', '/pick/differing', { which, mode: 'replace' });
    bench.menus.back = from;
    bench.menus.show(button, undefined, [
        ['Pick what is only in the picture', '', pick('picture')],
        ['Pick what is only on the desk', '', pick('desk')],
        ['Pick what is drawn otherwise', '', pick('other')],
        ['Pick all that differs', '', pick('all')],
        ['Tint the difference', '', () => bench.command('tint-output')],
        null,
        ...(view === ''
            ? []
            : [
                  [`Pictures of ${view}`, of === 'view' ? '✓' : '', () => bench.server.ask('POST', '/shows', { of: 'view' })],
                  ['Pictures of no view', of === 'view' ? '' : '✓', () => bench.server.ask('POST', '/shows', { of: 'none' })],
              ]),
    ]);
}
