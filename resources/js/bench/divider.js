import { remember, remembered } from './ownwindow.js';

/**
 * The divider between ledger and canvas, by pointer and by keyboard; its place is remembered in this browser.
 * @param {HTMLElement} divider
 */
export function listenToDivider(divider) {
    const set = (/** @type {number} */ width) => {
        const kept = Math.round(Math.max(360, Math.min(900, innerWidth - 280, width)));
        document.documentElement.style.setProperty('--ledger', `${kept}px`);
        divider.setAttribute('aria-valuenow', String(kept));
        remember('ledger-width', String(kept));
    };
    const kept = Number(remembered('ledger-width'));
    if (kept) set(kept);
    divider.addEventListener('pointerdown', (event) => divider.setPointerCapture(event.pointerId));
    divider.addEventListener('pointermove', (event) => divider.hasPointerCapture(event.pointerId) && set(event.clientX));
    divider.addEventListener('keydown', (event) => {
        const step = { ArrowLeft: -24, ArrowRight: 24 }[event.key];
        if (!step) return;
        event.preventDefault();
        event.stopPropagation();
        set(Number(divider.getAttribute('aria-valuenow')) + step);
    });
}
