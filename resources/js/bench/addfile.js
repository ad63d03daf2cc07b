import { dropped, megabytes, modelOf, noRoom, put, transfer } from '../upload.js';

/** Milliseconds between questions how far a file is. */
const AGAIN = 600;

/**
 * Another file comes into the project: dropped anywhere on the workbench or chosen, asked about, sent, and taken in while the work goes
 * on; how far it is stands in the top bar.
 */
export class AddFile {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.place = /** @type {HTMLElement} */ (document.getElementById('intake'));
        this.input = /** @type {HTMLInputElement} */ (document.getElementById('add-file-input'));
        /** @type {import('../upload.js').Given[]} */
        this.given = [];
        /** What is being sent. @type {XMLHttpRequest | null} */
        this.sending = null;
        /** Addresses of what is being taken in. @type {Set<string>} */
        this.watched = new Set();
        let depth = 0;
        const isFile = (/** @type {DragEvent} */ event) => event.dataTransfer?.types.includes('Files') === true;
        const over = (/** @type {number} */ by) => {
            depth = Math.max(0, depth + by);
            document.body.classList.toggle('file-over', depth > 0);
        };
        addEventListener('dragenter', (event) => isFile(event) && over(1));
        addEventListener('dragleave', (event) => isFile(event) && over(-1));
        addEventListener('dragover', (event) => isFile(event) && event.preventDefault());
        addEventListener('drop', async (event) => {
            if (!isFile(event) || !event.dataTransfer) return;
            event.preventDefault();
            over(-depth);
            this.ask(await dropped(event.dataTransfer));
        });
        this.input.addEventListener('change', () => {
            const chosen = [...(this.input.files ?? [])].map((file) => ({ file, path: file.name }));
            this.input.value = '';
            if (chosen.length > 0) this.ask(chosen);
        });
        const dialog = bench.dialogs.element;
        dialog.addEventListener('submit', (event) => {
            const form = /** @type {HTMLFormElement} */ (event.target);
            if (!form.matches('[data-add-file]')) return;
            event.preventDefault();
            this.send(form);
        });
        dialog.addEventListener('change', ({ target }) => {
            const form = target instanceof Element ? /** @type {HTMLFormElement | null} */ (target.closest('[data-add-file]')) : null;
            if (form) this.showWhatMatters(form);
        });
        this.place.addEventListener('click', (event) => {
            const stop = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-stop]'));
            if (stop) this.stop(stop.dataset.stop ?? '');
        });
        const here = new URL(location.href);
        const unsure = here.searchParams.get('unsure') ?? '';
        if (/^\d+$/.test(unsure)) {
            here.searchParams.delete('unsure');
            history.replaceState(history.state, '', here);
            this.bench.openDialog(`/sources/${unsure}/unsure`);
        }
        for (const address of (this.place.dataset.open ?? '').split(' ').filter(Boolean)) this.watch(address);
    }

    /** Lets somebody choose a file. */
    choose() {
        this.input.click();
    }

    /** @param {import('../upload.js').Given[]} given */
    async ask(given) {
        if (given.length === 0 || !this.bench.may()) return undefined;
        if (this.sending) return this.bench.say('One file is on its way already; wait until it is sent.');
        const { model, complaint } = modelOf(given);
        if (!model) return this.bench.say(complaint);
        this.given = given;
        await this.bench.openDialog(`/sources/ask?name=${encodeURIComponent(model.file.name)}`);
        const form = this.bench.dialogs.element.querySelector('[data-add-file]');
        if (form instanceof HTMLFormElement) this.showWhatMatters(form);
        return undefined;
    }

    /** @param {HTMLFormElement} form */
    showWhatMatters(form) {
        const { value } = /** @type {HTMLSelectElement} */ (form.elements.namedItem('sort_by'));
        for (const part of /** @type {NodeListOf<HTMLElement>} */ (form.querySelectorAll('[data-shown-for]')))
            part.hidden = part.dataset.shownFor !== value;
        const isNew = new FormData(form).get('project') === '';
        for (const part of /** @type {NodeListOf<HTMLElement>} */ (form.querySelectorAll('.into-this'))) part.hidden = isNew;
    }

    /** @param {HTMLFormElement} form */
    async send(form) {
        const { model } = modelOf(this.given);
        if (!model || this.sending) return;
        const address = form.dataset.address ?? '';
        const body = new FormData(form);
        const isNew = body.get('project') === '';
        if (isNew) for (const name of ['project', 'landing']) body.delete(name);
        const name = model.file.name;
        const bytes = put(body, model, this.given);
        const full = await noRoom(address, bytes);
        if (full) {
            const error = /** @type {HTMLElement} */ (form.querySelector('.error'));
            error.textContent = full;
            error.hidden = false;
            return;
        }
        this.bench.dialogs.close();
        this.show(name, 0, 'sending', 'sending');
        this.sending = transfer(address, body, {
            sent: (loaded, total) =>
                this.show(name, (100 * loaded) / Math.max(1, total), `${megabytes(loaded)} of ${megabytes(total)}`, 'sending'),
            done: (answer) => {
                this.sending = null;
                if (isNew) location.href = answer.page;
                else this.watch(answer.page);
            },
            failed: (sentence) => {
                this.sending = null;
                this.hide();
                this.bench.say(`${name}: ${sentence}`);
            },
        });
    }

    /** Asks how far a file is until it is in, or is not. @param {string} address */
    async watch(address) {
        this.watched.add(address);
        for (;;) {
            const response = await fetch(address, { headers: { Accept: 'application/json' } }).catch(() => null);
            const said = response?.ok ? await response.json() : null;
            if (said && this.ended(said)) break;
            if (response?.status === 404) break;
            if (said) this.show(said.name, said.percent, said.says, address);
            await new Promise((resolve) => setTimeout(resolve, AGAIN));
        }
        this.watched.delete(address);
        if (this.watched.size === 0) this.hide();
    }

    /** @param {any} said @returns {boolean} whether it is over */
    ended({ state, name, objects, error, report, unsure }) {
        if (state === 'done') {
            const count = objects === 1 ? '1 object' : `${objects.toLocaleString('en')} objects`;
            const link = Object.assign(document.createElement('a'), { href: report, textContent: 'See what came' });
            this.bench.say(`${name} is in: ${count}.`, link);
            this.list(name, report);
            if (unsure && !this.bench.dialogs.element.open) this.bench.openDialog(unsure);
            return true;
        }
        if (state === 'failed') this.bench.say(`${name}: ${error}`);
        if (state === 'stopped') this.bench.say(`${name}: stopped. Nothing of it was kept.`);
        return state === 'failed' || state === 'stopped';
    }

    /** Among the sources of the project from now on. @param {string} name @param {string} report */
    list(name, report) {
        const place = /** @type {HTMLElement} */ (document.getElementById('sources'));
        const sources = [...JSON.parse(place.dataset.sources ?? '[]'), { name, report }];
        place.dataset.sources = JSON.stringify(sources);
        place.textContent = sources.length === 1 ? 'one source' : `${sources.length} sources`;
    }

    /** @param {string} name @param {number} percent @param {string} says @param {string} stop what ends it */
    show(name, percent, says, stop) {
        this.place.hidden = false;
        const part = (/** @type {string} */ selector) => /** @type {HTMLElement} */ (this.place.querySelector(selector));
        part('.bar').setAttribute('aria-valuenow', String(Math.round(percent)));
        part('i').style.width = `${percent}%`;
        part('.intake-says').textContent = `${name}: ${says}`;
        this.place.title = `${name}: ${says}`;
        part('[data-stop]').dataset.stop = stop;
    }

    hide() {
        this.place.hidden = true;
    }

    /** @param {string} what "sending", or the address of what is being taken in */
    stop(what) {
        if (what === 'sending') return this.sending?.abort();
        const token = /** @type {HTMLMetaElement} */ (document.querySelector('meta[name=csrf-token]')).content;
        return fetch(`${what}/stop`, { method: 'POST', headers: { 'X-CSRF-TOKEN': token } });
    }
}
