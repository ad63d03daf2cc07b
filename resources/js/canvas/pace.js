/** Milliseconds from one picture to the next while the camera moves, with all that the page and the browser do between them. */
const MOVING_MS = 70;
/** Milliseconds that drawing has at least: with less, they would all go into beginning and ending a picture. */
const LEAST_MS = 30;
/** After a longer pause than these milliseconds nothing can be learned from it: the camera stood still. */
const PAUSE_MS = 250;

/** How long drawing one picture may take while the camera moves: what the page and the browser need between two is learned as it goes. */
export class Pace {
    constructor() {
        /** Milliseconds between two moving pictures in which nothing of them was worked out or drawn. */
        this.between = 10;
        /** When the last moving picture was begun. */
        this.last = -Infinity;
        /** Milliseconds that it took of the page's own time. */
        this.spent = 0;
    }

    /** @param {number} now milliseconds @param {boolean} moving whether the picture that is begun is one of a moving camera */
    begin(now, moving) {
        const between = now - this.last - this.spent;
        if (moving && between >= 0 && between < PAUSE_MS) this.between = this.between * 0.7 + between * 0.3;
        this.last = moving ? now : -Infinity;
        this.spent = 0;
    }

    /** @param {number} milliseconds that sorting, drawing and showing it took */
    took(milliseconds) {
        this.spent = milliseconds;
    }

    /** @param {number} others milliseconds that sorting and showing take @returns {number} milliseconds that drawing may take */
    left(others) {
        return Math.max(LEAST_MS, MOVING_MS - this.between - others);
    }
}
