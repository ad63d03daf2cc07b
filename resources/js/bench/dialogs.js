import { Reviewing } from './reviewing.js';

/** The one dialog of the workbench: shows what the server sends, hands its form in, and shows an error where it was made. */
export class Dialogs {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.element = /** @type {HTMLDialogElement} */ (document.getElementById('dialog'));
        this.reviewing = new Reviewing(this);
        this.element.addEventListener('click', (event) => {
            const on = /** @type {HTMLElement} */ (event.target);
            if (on.closest('[data-close]') || on === this.element) this.close();
            const mend = /** @type {HTMLElement | null} */ (on.closest('[data-mend]'));
            if (mend) this.mend(mend);
            const side = /** @type {HTMLElement | null} */ (on.closest('[data-why-side]'));
            if (side) this.turnWhy(side);
            const shown = /** @type {HTMLElement | null} */ (on.closest('[data-show-row]'));
            if (shown) this.showRow(shown.dataset.showRow ?? '');
            const here = /** @type {HTMLElement | null} */ (on.closest('[data-here-why], [data-here-mend], [data-here-pick]'));
            if (here) this.here(here);
            const way = /** @type {HTMLElement | null} */ (on.closest('[data-way]'));
            if (way) this.reach(way);
            const other = /** @type {HTMLElement | null} */ (on.closest('[data-open]'));
            if (other) this.bench.openDialog(other.dataset.open ?? '');
            const place = /** @type {HTMLElement | null} */ (on.closest('[data-place]'));
            if (place) this.putInto(place);
        });
        this.element.addEventListener('submit', (event) => {
            const form = /** @type {HTMLFormElement} */ (event.target);
            if (!form.dataset.submit) return;
            event.preventDefault();
            this.submit(form);
        });
        this.element.addEventListener('input', (event) => {
            const input = /** @type {HTMLInputElement} */ (event.target);
            if (input.matches('[data-narrow]')) this.narrow(input.value.trim().toLowerCase());
            if (input.form?.matches('.rename-many')) this.previewNames(input.form);
        });
        // The browser gives the focus back by itself, unless what had it is gone.
        this.element.addEventListener('close', () => {
            // The event comes late: the dialog may be open again by then.
            if (this.element.open) return;
            this.element.replaceChildren();
            const { ledger } = bench;
            const row = ledger.row(ledger.focusKey) ?? ledger.rows.querySelector('.row[tabindex="0"]');
            if (document.activeElement === document.body && row instanceof HTMLElement) ledger.focus(row);
        });
    }

    /** @param {string} html */
    open(html) {
        this.element.innerHTML = html;
        if (!this.element.open) this.element.showModal();
        /** @type {HTMLElement | null} */ (this.element.querySelector('[autofocus]'))?.focus();
        const text = this.element.querySelector('[autofocus]');
        if (text instanceof HTMLInputElement) text.select();
        for (const image of this.element.querySelectorAll('[data-canvas-picture]'))
            /** @type {HTMLImageElement} */ (image).src = this.bench.canvas.picture();
    }

    /** @param {HTMLElement} content */
    show(content) {
        this.element.replaceChildren(content);
        if (!this.element.open) this.element.showModal();
        const first = /** @type {HTMLElement | null} */ (content.querySelector('[autofocus]'));
        first?.focus();
        if (first instanceof HTMLInputElement) first.select();
    }

    close() {
        this.element.close();
    }

    /** Shows what the whole pick would be called, a moment after the last key. @param {HTMLFormElement} form */
    previewNames(form) {
        clearTimeout(this.previewing);
        this.previewing = window.setTimeout(async () => {
            const body = new URLSearchParams([...new FormData(form)].map(([name, value]) => [name, String(value)]));
            const token = /** @type {HTMLMetaElement} */ (document.querySelector('meta[name=csrf-token]')).content;
            const response = await fetch(`${this.bench.server.base}/rename/preview`, {
                method: 'POST',
                body,
                headers: { 'HX-Request': 'true', 'X-CSRF-TOKEN': token },
            });
            const text = await response.text();
            const place = form.querySelector('#rename-preview');
            const error = /** @type {HTMLElement} */ (form.querySelector('.error'));
            error.hidden = response.ok;
            if (response.ok && place) place.innerHTML = text;
            else
                error.textContent =
                    new DOMParser().parseFromString(text, 'text/html').querySelector('[data-field]')?.textContent?.trim() ??
                    'This cannot be shown.';
        }, 160);
    }

    /** @param {HTMLElement} button */
    async reach(button) {
        const form = /** @type {HTMLElement} */ (button.closest('[data-reach]'));
        const tolerance = Number(/** @type {HTMLInputElement} */ (form.querySelector('[name=tolerance]')).value) / 100;
        const scope = /** @type {HTMLSelectElement} */ (form.querySelector('[name=scope]')).value;
        const { way, property } = button.dataset;
        await this.bench.server.ask('POST', '/pick/reach', { way, tolerance, scope, ...(property ? { property } : {}) });
        const said = document.querySelector('#message')?.textContent?.trim() ?? '';
        /** @type {HTMLElement} */ (form.querySelector('.reached')).textContent = said;
        /** @type {HTMLElement} */ (form.querySelector('h2')).textContent = `Reach from ${this.bench.picked.toLocaleString('en')} picked`;
    }

    /** Writes a placeholder into the field that was used last. @param {HTMLElement} button */
    putInto(button) {
        const form = /** @type {HTMLFormElement} */ (button.closest('form'));
        const field = /** @type {HTMLInputElement} */ (form.querySelector('[name=pattern]'));
        field.setRangeText(button.dataset.place ?? '', field.selectionStart ?? 0, field.selectionEnd ?? 0, 'end');
        field.focus();
        this.previewNames(form);
    }

    /** @param {string} words */
    narrow(words) {
        const labels = /** @type {NodeListOf<HTMLElement>} */ (this.element.querySelectorAll('.choices label'));
        let first = true;
        const fresh = /** @type {HTMLElement | null} */ (this.element.querySelector('[data-new]'));
        for (const label of labels) {
            label.hidden = !(label.dataset.text ?? '').includes(words);
            if (!label.hidden && first) {
                first = false;
                /** @type {HTMLInputElement} */ (label.querySelector('input')).checked = true;
            }
        }
        if (fresh) fresh.hidden = !first || words === '';
    }

    /** @param {HTMLFormElement} form */
    async submit(form) {
        const values = Object.fromEntries([...new FormData(form)].map(([name, value]) => [name, String(value)]));
        if (form.querySelector('[name=with_held]') && !values.with_held) values.with_held = '0';
        if (form.hasAttribute('data-camera') && values.keep_camera === '1') values.camera = JSON.stringify(this.bench.canvas.sight());
        if (form.matches('.review')) values.keys = Reviewing.ticked(form).join(',');
        if (form.hasAttribute('data-picture')) values.picture = this.bench.canvas.picture();
        // What is not among the choices is made.
        const isNew = /** @type {HTMLElement | null} */ (form.querySelector('[data-new]'))?.hidden === false;
        const { address = '', orNew = '' } = form.dataset;
        const path = isNew ? orNew : address.slice(address.indexOf(this.bench.server.base) + this.bench.server.base.length);
        const status = await this.bench.server.ask(/** @type {any} */ (form.dataset.submit?.toUpperCase()), path, values);
        if (status >= 200 && status < 300) return this.close();
        const refusal = document.querySelector('#message [data-field]');
        const place = /** @type {HTMLElement | null} */ (form.querySelector('.error'));
        if (place && refusal) {
            place.textContent = refusal.textContent;
            place.hidden = false;
            const field = form.querySelector(`[name="${refusal.getAttribute('data-field')}"]`);
            if (field instanceof HTMLElement) {
                field.setAttribute('aria-invalid', 'true');
                field.focus();
            }
        }
    }

    /** One of the objects that are here: why, mend it, or pick it. @param {HTMLElement} button */
    async here(button) {
        const { hereWhy, hereMend, herePick } = button.dataset;
        if (hereWhy) return this.bench.why(Number(hereWhy));
        if (hereMend) {
            await this.bench.server.ask('POST', `/why/${hereMend}`, this.bench.mayChange ? { what: 'all' } : { what: 'all', part: 'rung' });
            button.closest('li')?.remove();
            return undefined;
        }
        this.close();
        return this.bench.pick({ keys: `O${herePick}`, mode: 'replace' });
    }

    /** Closes, and shows a layer, tag or folder in its lens. @param {string} key */
    async showRow(key) {
        this.close();
        await this.bench.showRow(key);
    }

    /** The same why, of the desk or of pictures. @param {HTMLElement} button */
    async turnWhy(button) {
        const { why = '' } = /** @type {HTMLElement} */ (button.closest('[data-why]')).dataset;
        const { whySide } = button.dataset;
        const html = await this.bench.server.html(`${why}${why.includes('?') ? '&' : '?'}side=${whySide}`);
        if (html && this.element.open) this.element.innerHTML = html;
        /** @type {HTMLElement | null} */ (this.element.querySelector('[data-why-side]'))?.focus();
    }

    /** @param {HTMLElement} button */
    async mend(button) {
        const { why = '', side = 'desk' } = /** @type {HTMLElement} */ (button.closest('[data-why]')).dataset;
        const { what = '', number = '', part = '', onlyInView = '' } = button.dataset;
        await this.bench.server.ask('POST', why, {
            what,
            side,
            ...(number ? { number } : {}),
            ...(part ? { part } : {}),
            ...(onlyInView ? { only_in_view: 1 } : {}),
        });
        const html = await this.bench.server.html(`${why}${why.includes('?') ? '&' : '?'}side=${side}`);
        if (html && this.element.open) this.element.innerHTML = html;
        /** @type {HTMLElement | null} */ (this.element.querySelector('button'))?.focus();
    }
}
