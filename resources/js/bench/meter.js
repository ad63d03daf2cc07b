/** What the coarser ones, and all others, are tinted in. */
const COARSER = [196, 132, 29, 255];
const REST = [201, 198, 186, 255];

/** 12,345,678 as "12.3M". @param {number} number */
export function short(number) {
    if (number >= 1e7) return `${(number / 1e6).toFixed(1)}M`;
    if (number >= 1e6) return `${(number / 1e6).toFixed(2)}M`;
    if (number >= 1e4) return `${Math.round(number / 1e3)}k`;
    return number >= 1e3 ? `${(number / 1e3).toFixed(1)}k` : String(Math.round(number));
}

/**
 * What the canvas draws beside what it may: triangles, calls and megabytes in the meter; and what is coarser than it may be, for the
 * budget's sake, in words that tint it.
 */
export class Meter {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.place = /** @type {HTMLElement} */ (document.getElementById('meter'));
        this.words = /** @type {HTMLButtonElement} */ (document.getElementById('coarser'));
        this.drawn = { triangles: 0, calls: 0, megabytes: 0 };
        this.tinted = '';
        new MutationObserver(() => this.show()).observe(this.place, { childList: true });
        document.getElementById('canvas')?.addEventListener('shelf:drawn', (event) => {
            const { drawn, calls, coarser, megabytes, done } = /** @type {CustomEvent} */ (event).detail;
            if (!done) return;
            this.drawn = { triangles: drawn, calls, megabytes };
            this.show();
            this.say(coarser);
        });
        this.words.addEventListener('click', () => this.turn());
    }

    show() {
        for (const gauge of /** @type {NodeListOf<HTMLElement>} */ (this.place.querySelectorAll('.gauge'))) {
            const what = /** @type {'triangles' | 'calls' | 'megabytes'} */ (gauge.dataset.gauge);
            const share = this.drawn[what] / Math.max(1, Number(gauge.dataset.most));
            /** @type {HTMLElement} */ (gauge.querySelector('b')).textContent = short(this.drawn[what]);
            /** @type {HTMLElement} */ (gauge.querySelector('i')).style.width = `${Math.min(100, 100 * share).toFixed(1)}%`;
            gauge.classList.toggle('over', share > 1);
        }
    }

    /** @param {number} coarser placements that are */
    say(coarser) {
        const isOn = this.words.getAttribute('aria-pressed') === 'true';
        this.words.hidden = coarser === 0 && !isOn;
        const words = `${coarser.toLocaleString('en')} coarser, to keep the budget`;
        if (this.words.textContent !== words) this.words.textContent = words;
        if (isOn) this.tint();
    }

    /** Tints what is coarser, or ends that. */
    turn() {
        const isOn = this.words.getAttribute('aria-pressed') !== 'true';
        this.words.setAttribute('aria-pressed', String(isOn));
        this.tinted = '';
        if (isOn) return this.tint();
        this.words.hidden = this.bench.canvas.painter.summary.coarser === 0;
        return this.bench.tint.again();
    }

    tint() {
        const coarser = this.bench.canvas.painter.coarser();
        // As long as the same are, the picture stays.
        const same = coarser.join();
        if (same === this.tinted) return;
        this.tinted = same;
        const colours = new Uint8Array(this.bench.canvas.states.length * 4);
        for (let at = 0; at < colours.length; at += 4) colours.set(REST, at);
        for (const object of coarser) colours.set(COARSER, object * 4);
        this.bench.canvas.setTint(colours);
    }
}
