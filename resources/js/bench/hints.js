import { posted } from '../posted.js';

/** Pixels between a hint and what it points at. */
const APART = 10;

/** What each hint points at. @type {Record<string, string>} */
const TARGETS = { hide: '#rows .row:nth-child(2) .rung', pick: '#rows .row:nth-child(5) .count', keep: '#shelf .keep button' };

const viewCount = () => document.querySelectorAll('#shelf .view').length;

/**
 * Three hints of a first visit: where to hide, where to pick, where to keep. Each is gone for good once it was closed, or what it says was
 * done.
 */
export class Hints {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.element = document.getElementById('hints');
        if (this.element === null) return;
        this.canvas = bench.canvas.element;
        this.element.addEventListener('click', ({ target }) => {
            const hint = /** @type {HTMLElement} */ (target).closest('[data-hint-close]')?.closest('[data-hint]');
            if (hint instanceof HTMLElement) this.done(hint.dataset.hint ?? '');
        });
        bench.element.addEventListener('pointerup', ({ target }) => {
            if (/** @type {HTMLElement} */ (target).closest('.rows .rung')) this.done('hide');
        });
        // What was picked when the page came is not what somebody has just done.
        bench.canvas.element.addEventListener('shelf:picked', () => {
            if (this.picked !== undefined && bench.picked > 0 && bench.picked !== this.picked) this.done('pick');
            this.picked = bench.picked;
        });
        bench.dialogs.element.addEventListener('submit', ({ target }) => {
            if (/** @type {HTMLElement} */ (target).querySelector('#view-name')) this.viewsBefore = viewCount();
        });
        const place = () => this.place();
        bench.ledger.rows.addEventListener('shelf:settled', place);
        addEventListener('resize', place);
        new ResizeObserver(place).observe(bench.canvas.element);
        new MutationObserver(place).observe(/** @type {HTMLElement} */ (document.getElementById('shelf')), { childList: true });
        place();
    }

    /** @param {string} name */
    done(name) {
        const hint = this.element?.querySelector(`[data-hint="${name}"]`);
        if (!hint || !this.element) return;
        hint.remove();
        posted(this.element.dataset.address ?? '', new URLSearchParams({ hint: name }));
    }

    /**
     * Beside the ledger at the height of what is meant; that of the shelf beside it, once there are views: an empty shelf says so itself.
     * What is out of sight has no hint.
     */
    place() {
        // What was asked for may have been refused.
        if (viewCount() > (this.viewsBefore ?? Infinity)) this.done('keep');
        const canvas = /** @type {HTMLElement} */ (this.canvas).getBoundingClientRect();
        let free = canvas.top + APART;
        for (const hint of /** @type {NodeListOf<HTMLElement>} */ (this.element?.querySelectorAll('[data-hint]'))) {
            const at = document.querySelector(TARGETS[hint.dataset.hint ?? ''])?.getBoundingClientRect();
            hint.hidden = !at || at.width === 0 || canvas.width < 360 || canvas.height < 320;
            if (!at || hint.hidden) continue;
            const { width, height } = hint.getBoundingClientRect();
            if (hint.dataset.hint === 'keep') {
                Object.assign(hint.style, { left: `${at.right + APART}px`, top: `${at.top + at.height / 2 - height / 2}px` });
                hint.hidden = at.right + APART + width > innerWidth || viewCount() === 0;
            } else {
                const top = Math.max(free, at.top + at.height / 2 - height / 2);
                Object.assign(hint.style, { left: `${canvas.left + APART}px`, top: `${top}px` });
                hint.style.setProperty('--tip', `${Math.max(10, Math.min(height - 10, at.top + at.height / 2 - top))}px`);
                free = top + height + APART;
            }
        }
    }
}
