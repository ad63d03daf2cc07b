/**
 * Puts a field in a label's place: Enter or leaving it keeps the new name, Escape leaves the old one.
 * @param {HTMLElement} label
 * @param {string} name
 * @param {{className?: string, length: number, after: () => void, keep: (name: string) => void}} options
 */
export function renameInPlace(label, name, { className = '', length, after, keep }) {
    const input = Object.assign(document.createElement('input'), { value: name, maxLength: length, className });
    input.setAttribute('aria-label', `New name for ${name}`);
    label.replaceWith(input);
    input.focus();
    input.select();
    let over = false;
    const end = (/** @type {boolean} */ wanted) => {
        if (over) return;
        over = true;
        const typed = input.value;
        input.replaceWith(label);
        after();
        if (wanted && typed !== name) keep(typed);
    };
    input.addEventListener('keydown', (event) => {
        event.stopPropagation();
        if (event.key === 'Enter') end(true);
        if (event.key === 'Escape') end(false);
    });
    input.addEventListener('blur', () => end(true));
}
