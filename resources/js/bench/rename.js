/**
 * Puts a field in a label's place: Enter or leaving it keeps the new name, Escape leaves the old one. Answers that come meanwhile,
 * about what somebody else does, leave the place around the field alone.
 * @param {HTMLElement} label
 * @param {string} name
 * @param {{className?: string, length: number, after: () => void, keep: (name: string) => void, leave: () => void}} options
 */
export function renameInPlace(label, name, { className = '', length, after, keep, leave }) {
    const input = Object.assign(document.createElement('input'), { value: name, maxLength: length, className });
    input.setAttribute('aria-label', `New name for ${name}`);
    const place = label.parentElement;
    label.replaceWith(input);
    place?.setAttribute('hx-morph-skip', '');
    input.focus();
    input.select();
    let over = false;
    const end = (/** @type {boolean} */ wanted) => {
        if (over) return;
        over = true;
        const typed = input.value;
        input.replaceWith(label);
        place?.removeAttribute('hx-morph-skip');
        after();
        if (wanted && typed !== name) keep(typed);
        else leave();
    };
    input.addEventListener('keydown', (event) => {
        event.stopPropagation();
        if (event.key !== 'Enter' && event.key !== 'Escape') return;
        // What has the keyboard then must not be pressed by this very key.
        event.preventDefault();
        end(event.key === 'Enter');
    });
    input.addEventListener('blur', () => end(true));
}
