import { inflated } from './inflated.js';

const CROSS =
    '<svg class="icon" viewBox="0 0 24 24" fill="none" stroke="currentColor" stroke-width="2" aria-hidden="true">' +
    '<path d="M6 6l12 12M18 6L6 18"/></svg>';

/** The tint of the canvas and its legend: a click on an entry picks what it stands for. */
export class Tint {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.stamp = '';
        this.legend = /** @type {HTMLElement} */ (document.getElementById('legend'));
        this.legend.addEventListener('click', (event) => {
            const entry = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-entry]'));
            if (entry)
                bench.server.ask('POST', '/tint/pick', {
                    entry: entry.dataset.entry,
                    mode: event.shiftKey ? 'add' : event.altKey ? 'remove' : 'replace',
                });
        });
    }

    /** Puts the tint back that something else was shown over. */
    again() {
        const { stamp } = this;
        this.stamp = 'none';
        return this.read(stamp);
    }

    /** @param {string} stamp changes whenever the colours may have changed; empty for own materials */
    async read(stamp) {
        if (stamp === this.stamp) return;
        this.stamp = stamp;
        if (stamp === '') {
            this.legend.hidden = true;
            this.legend.replaceChildren();
            return this.bench.canvas.setTint(null);
        }
        const tint = await this.bench.server.json('/tint');
        if (!tint || stamp !== this.stamp) return;
        const colours = coloursOf(
            await inflated(tint.codes),
            tint.entries.map((/** @type {{colour: string}} */ { colour }) => colour),
        );
        this.bench.canvas.setTint(colours);
        this.draw(tint);
    }

    /** @param {{by: string, label: string, entries: {label: string, colour: string, objects: number}[]}} tint */
    draw({ by, label, entries }) {
        const head = document.createElement('p');
        head.append(Object.assign(document.createElement('strong'), { textContent: label }));
        if (by === 'shuffle') head.append(' ', this.button('Again', 'tint-shuffle'));
        const end = this.button('', 'tint-own');
        end.className = 'icon-button';
        end.title = 'End the tint: own materials';
        end.setAttribute('aria-label', end.title);
        end.innerHTML = CROSS;
        head.append(end);
        const list = Object.assign(document.createElement('div'), { className: 'legend-entries' });
        if (by !== 'shuffle') {
            for (const [index, { label: name, colour, objects }] of entries.entries()) {
                const entry = Object.assign(document.createElement('button'), {
                    className: 'legend-entry',
                    title: `${name}: ${objects.toLocaleString('en')} objects. Click picks them, Shift adds, Alt takes away`,
                });
                entry.dataset.entry = String(index);
                const swatch = Object.assign(document.createElement('span'), { className: 'swatch' });
                swatch.style.setProperty('--swatch', colour);
                entry.append(
                    swatch,
                    Object.assign(document.createElement('span'), {
                        className: 'label',
                        textContent: name.split(' › ').pop() || 'unnamed',
                    }),
                    Object.assign(document.createElement('small'), { textContent: objects.toLocaleString('en') }),
                );
                list.append(entry);
            }
        }
        this.legend.replaceChildren(head, list);
        this.legend.hidden = false;
    }

    /** @param {string} text @param {string} command */
    button(text, command) {
        const button = Object.assign(document.createElement('button'), { className: 'link', textContent: text });
        button.dataset.command = command;
        return button;
    }
}

/**
 * @param {Uint8Array} bytes two by object number: the entry, counted from 1, 0 for none
 * @param {string[]} entries colour of each
 * @returns {Uint8Array} red, green, blue and 255 by object number
 */
export function coloursOf(bytes, entries) {
    const codes = new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.length >> 1);
    const palette = entries.map((colour) => [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16)));
    const colours = new Uint8Array(codes.length * 4);
    for (let number = 0; number < codes.length; number++) {
        if (codes[number] === 0) continue;
        const [red, green, blue] = palette[codes[number] - 1];
        colours.set([red, green, blue, 255], number * 4);
    }
    return colours;
}
