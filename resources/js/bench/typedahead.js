/**
 * Keys that are struck after a dialog was called and before it has come are for it: they wait, and are written into its field then. None
 * of them runs as a command, however long the answer takes.
 */
export class TypedAhead {
    constructor() {
        /** How many dialogs are on their way. */
        this.open = 0;
        /** @type {string[]} */
        this.keys = [];
        addEventListener('keydown', (event) => this.key(event), true);
    }

    /** @param {KeyboardEvent} event */
    key(event) {
        const on = event.target;
        // Over a page that is out of reach, keys are for the dialog, whatever took the keyboard from it.
        const dialog = document.querySelector('dialog[open]');
        if (dialog && !dialog.contains(document.activeElement)) {
            const first = dialog.querySelector('[autofocus]') ?? dialog.querySelector('input:not([type=hidden]), button');
            /** @type {HTMLElement | null} */ (first)?.focus();
            return event.stopPropagation();
        }
        if (this.open === 0 || (on instanceof Element && on.closest('input, textarea, select, dialog[open]'))) return;
        if (event.ctrlKey || event.metaKey || event.altKey || event.isComposing) return;
        if (event.key.length > 1 && !['Enter', 'Backspace', 'Escape'].includes(event.key)) return;
        event.preventDefault();
        event.stopPropagation();
        this.keys.push(event.key);
    }

    /**
     * @template T
     * @param {Promise<T>} coming what brings the dialog
     * @returns {Promise<T>}
     */
    async until(coming) {
        this.open++;
        try {
            return await coming;
        } finally {
            this.open--;
        }
    }

    /** Whether Escape was struck before it came: it need not come any more. */
    get isLeft() {
        return this.keys.includes('Escape');
    }

    /** What was typed comes into the field of what has come. @param {HTMLElement} dialog */
    write(dialog) {
        const keys = this.keys.splice(0);
        if (keys.length === 0) return;
        const field = dialog.querySelector(
            'input[autofocus], textarea[autofocus], input[type=search], input[type=text], input:not([type])',
        );
        if (!(field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement)) return;
        field.focus();
        for (const key of keys) {
            if (key === 'Enter') {
                field.form?.requestSubmit();
                return;
            }
            const [start, end] = [field.selectionStart ?? field.value.length, field.selectionEnd ?? field.value.length];
            if (key === 'Backspace') field.setRangeText('', start === end ? Math.max(0, start - 1) : start, end, 'end');
            else field.setRangeText(key, start, end, 'end');
            field.dispatchEvent(new Event('input', { bubbles: true }));
        }
    }

    forget() {
        this.keys = [];
    }
}
