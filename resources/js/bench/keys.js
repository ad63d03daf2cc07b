/** A key as the commands name it, for example "Ctrl+Shift+z". @param {KeyboardEvent} event */
export function keyOf(event) {
    const digit = /^Digit([0-9])$/.exec(event.code);
    const letter = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    const key = event.altKey && digit ? digit[1] : letter;
    const shift = event.shiftKey && (event.altKey || /^[a-z]$/.test(key));
    return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.altKey ? 'Alt+' : ''}${shift ? 'Shift+' : ''}${key}`;
}

/** A key as people read it. @param {string} key */
export function shownKey(key) {
    return key
        .split('+')
        .map((part) => ({ Escape: 'Esc', Shift: '⇧', Backspace: '⌫' })[part] ?? (part.length === 1 ? part.toUpperCase() : part))
        .join(key.includes('Ctrl') || key.includes('Alt') ? ' + ' : ' ')
        .replace('⇧ + ', '⇧ ');
}

/** What the mouse and the ledger's own keys do; they are not commands. */
export const GESTURES = /** @type {Record<string, [string, string][]>} */ ({
    Canvas: [
        ['Left click', 'pick'],
        ['Shift or Ctrl, Alt + click', 'add, take away'],
        ['Double click', 'step into a group; Esc out'],
        ['Left drag', 'region'],
        ['Right button', 'orbit'],
        ['Right click', 'menu'],
        ['Middle button', 'pan'],
        ['Wheel', 'zoom to the pointer'],
        ['← → ↑ ↓', 'orbit; with ⇧ pan'],
        ['+ −', 'zoom'],
        ['Alt + wheel', 'size of the brush'],
    ],
    Regions: [
        ['← → ↑ ↓', 'move the cross; ⇧ farther'],
        ['Space', 'set a corner, or begin'],
        ['Enter', 'close; ⇧ add, Alt take away'],
        ['Backspace', 'a corner back'],
    ],
    Ledger: [
        ['↑ ↓', 'move'],
        ['→ ←', 'unfold, fold'],
        ['Click on a mark', 'hide, and give back; Ctrl: only this'],
        ['Draw over marks', 'all get the same'],
        ['Rest on a mark', 'the rungs with their names'],
        ['Click on a count', 'pick; ⇧ add, Alt take away'],
        ['Enter', 'pick what the row holds; ⇧ add'],
        ['Space', 'one more row, or one less'],
        ['Shift + ↑ ↓, Ctrl + A', 'a range of rows, every row'],
        ['5 … 0', 'Full, Plain, Coarse, Ghost, Box, Hidden'],
        ['Alt + O', 'what pictures show'],
        ['L', 'open, guard, lock'],
        ['Y', 'why'],
        ['F2', 'rename'],
        ['Delete', 'delete layer, tag, set or objects'],
        ['Shift + F10', 'menu'],
        ['Alt + ← →', 'move a column, on its head'],
        ['Alt + Shift + arrows', 'move a layer, tag, set, folder, or an object in the nesting'],
        ['Ctrl + →', 'into the cells of tags and sets'],
        ['Space, + −', 'there: turn, put in, take out; ⇧ extends'],
        ['Shift + drag', 'a block of cells of views'],
    ],
    Find: [
        ['Enter, Shift + Enter', 'next hit, hit before'],
        ['Esc', 'empty the line, then leave it'],
        ['Ctrl + Enter', 'pick the hits'],
        ['↓, Tab', 'choose and take an offer'],
    ],
    Walk: [
        ['↑ W, ↓ S', 'ahead, back'],
        ['← →', 'turn'],
        ['A, D', 'step aside'],
        ['Shift', 'faster'],
        ['Esc', 'stop walking'],
    ],
    Views: [
        ['← →', 'step along the shelf'],
        ['Alt + Shift + ← →', 'move a view or a folder'],
        ['Ctrl + Space', 'choose several'],
        ['Enter', 'fold a folder'],
    ],
});
