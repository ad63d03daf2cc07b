<?php

declare(strict_types=1);

namespace Tests\Browser;

final class WorkbenchTest extends BrowserTestCase
{
    public function test_everything_by_keyboard(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->js('document.querySelector(".rows .row").focus()');
        // Down to the basins, unfold, down to an object, pick it and the two below it.
        for ($step = 0; $step < 9; $step++) {
            $browser->press('ArrowDown');
        }
        $browser->waitUntil('return document.activeElement.dataset?.key === "L10"', 'the focus is not on 40 Basins');
        $browser
            ->press('ArrowRight')
            ->waitUntil('return document.querySelector("#row-L10").getAttribute("aria-expanded") === "true"', 'not unfolded');
        $browser->waitUntil('return document.activeElement.dataset?.key === "L10"', 'unfolding lost the focus');
        $browser->press('ArrowRight', 'Enter')->waitFor('#card h2');
        $first = $browser->text('#card h2');
        $browser
            ->press('Shift+ArrowDown')
            ->waitForText('#card', '1 group, 1 part picked')
            ->press('Shift+ArrowDown')
            ->waitForText('#card', '2 parts, 1 group picked');
        self::assertNotSame('', $first);

        // Lock them, try to rename one, open again.
        $browser->press('l')->waitForText('#message', 'Guard');
        $browser->press('Escape')->waitUntil('return document.querySelector("#card h2") === null', 'the pick stays');
        $browser->press('F2')->waitFor('.rename');
        $browser->type('.rename', 'Basin of mine');
        $browser->press('Enter')->waitForText('#message', 'to Basin of mine');
        $browser->press('ArrowLeft');
        $browser->waitUntil('return document.activeElement.dataset?.key === "L10"', 'left does not lead to the layer');

        // Set rungs by number, ask why, mend.
        $browser->press('2')->waitForText('#message', '40 Basins: Ghost.');
        $browser->press('ArrowRight', 'y')->waitForText('#dialog', 'is a ghost because layer 40 Basins is');
        $browser->press('Enter')->waitUntil('return !document.querySelector("#dialog").textContent.includes("is a ghost")', 'not mended');
        $browser->press('Escape');

        // A layer by key, with a name that is taken: the error stands where it was typed.
        $browser->press('ArrowLeft', 'n')->waitFor('#row-name');
        $browser->js('document.querySelector("#dialog [name=parent]").checked = false');
        $browser->type('#row-name', '51 SEATS');
        $browser->press('Enter')->waitForText('#dialog .error', 'There is a layer "51 Seats" here already');
        $browser->type('#row-name', 'By keyboard');
        $browser->press('Enter')->waitForText('#message', 'Create layer By keyboard.');

        // Find by name, pick what was found, file it by typing part of a layer's name.
        $browser->js('document.querySelector("#canvas canvas").focus()');
        $browser->press('/');
        $browser->type('#words', 'lifering')->waitForText('#hits', '4 objects');
        $browser->press('Control+Enter')->waitForText('#card', '4 parts picked');
        $browser->js('document.querySelector("#canvas canvas").focus()');
        $browser->press('u')->waitFor('[data-narrow]');
        $browser->type('[data-narrow]', 'keyboard');
        $browser->press('Enter')->waitForText('#message', 'File 4 objects under By keyboard.');

        // Delete the layer; its objects go to Unsorted.
        $browser->js('document.querySelector("#words").focus()');
        $browser->press('Escape')->waitUntil('return document.querySelector("#hits").textContent === ""', 'the search stays');
        $browser->js(
            'const key = [...document.querySelectorAll(".row")].find((row) => row.dataset.name === "By keyboard")?.dataset.key; if (key) '.
                'shelfBench.ledger.show(key)',
        );
        $browser->js('shelfBench.ledger.scroll.scrollTop = 1e6');
        $browser->waitFor('.row[data-name="By keyboard"]');
        $browser->js('shelfBench.ledger.focus(document.querySelector(\'.row[data-name="By keyboard"]\'))');
        $browser->press('Delete')->waitForText('#dialog', '4 objects are filed under it');
        $browser->click('#dialog .danger')->waitForText('#message', 'Delete layer By keyboard.');
        $browser->waitUntil(
            'return document.querySelector("#dialog").childElementCount === 0 && document.activeElement.classList.contains("row")',
            'the keyboard is not back in the ledger',
        );
        $browser->press('?')->waitForText('#dialog', 'zoom to the pointer');
        self::assertSame([], $browser->complaints());
    }

    public function test_objects_are_filed_by_dragging_them_onto_a_layer(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser
            ->click('#row-L14 .fold')
            ->waitUntil('return document.querySelectorAll(".row:not(.is-layer):not(.head)").length === 3', 'the water is not unfolded');
        $browser->js(
            <<<'JS'
                const from = document.querySelector('.rows .row:not(.is-layer)'), to = document.querySelector('#row-L10');
                const transfer = new DataTransfer();
                const options = { bubbles: true, cancelable: true, dataTransfer: transfer };
                const fire = (on, type) => on.dispatchEvent(new DragEvent(type, options));
                fire(from, 'dragstart'); fire(to, 'dragover'); window.dropWords = to.dataset.drop; fire(to, 'drop'); fire(from, 'dragend');
            JS
            ,
        );
        $browser->waitForText('#message', 'File 1 object under 40 Basins.');
        self::assertSame('File 1 object under 40 Basins', $browser->js('return window.dropWords'));
        self::assertSame('2', $browser->text('#row-L14 .count'));
    }

    public function test_guarded_objects_are_not_picked_in_the_canvas_and_ghosts_let_the_pointer_through(): void
    {
        $browser = $this->workbench(tall: true);
        [$panel, $x, $y] = $this->facing($browser, 'Mesh_33');
        $browser->js('shelfBench.setLock(["L6"], 1)');
        $browser->waitForText('#message', 'Guard layer 21 Roof skin.')->settled();
        $browser->clickCanvas($x, $y)->waitForText('#message', 'That object is guarded');
        self::assertFalse($browser->has('#card h2'));
        // As a backdrop, ghost and guarded together, it is see-through for the pointer too.
        $solid = $browser->pixel($x, $y);
        $browser->js('shelfBench.setRung(["L6"], 2)');
        $browser->waitForText('#message', '21 Roof skin: Ghost.')->settled();
        self::assertNotEqualsWithDelta($solid, $browser->pixel($x, $y), 4, 'the ghost looks like the solid part');
        $browser->clickCanvas($x, $y)->waitFor('#card h2');
        self::assertStringContainsString('Deck panel', $browser->text('#card'));
        // A box is its bounding box; hidden is nothing.
        $browser->js('shelfBench.setRung(["L5", "L6"], 0)');
        $browser->waitForText('#message', 'Hidden')->settled();
        self::assertNotSame($panel, $browser->js('return shelfBench.canvas.painter.numberAt(arguments[0], arguments[1])', $x, $y));
        // While the canvas gets another size its last picture stays, until there is one of that size.
        self::stopDrawing($browser);
        $browser->js('document.documentElement.style.setProperty("--ledger", "560px")');
        $shades = $browser->waitFor('#canvas .last-picture')->js(
            'const kept = document.querySelector("#canvas .last-picture"), { data } = kept.getContext("2d")'.
                '.getImageData(0, 0, kept.width, kept.height); return new Set(data).size',
        );
        self::assertGreaterThan(20, $shades, 'what stays is empty');
        $browser->js('delete shelfBench.canvas.frame; shelfBench.canvas.frame()');
        $browser->settled()->waitUntil('return !document.querySelector("#canvas .last-picture")', 'it stays for good');
    }

    public function test_rows_that_come_late_do_not_stand_for_what_is_now(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->js('shelfBench.pick({ keys: "L2", mode: "replace" })');
        $browser->waitFor('#row-L2.picked');
        $browser->js('window.late = document.querySelector("#rows").innerHTML; shelfBench.command("clear-pick")');
        $browser->waitUntil('return !document.querySelector("#row-L2.picked")', 'the pick was not cleared');
        // As when an answer from before the change is the last to come.
        $browser->js('document.querySelector("#rows").innerHTML = window.late');
        $browser->waitUntil('return !document.querySelector("#row-L2.picked")', 'rows from before the change stayed');

        $browser->js('shelfBench.finder.search("layer:Seats")');
        $browser->waitForText('#hits', 'objects');
        // As when a command was asked before the search and answered after it.
        $browser->js('document.querySelector("#rows").innerHTML = window.late');
        $browser->waitUntil('return !document.getElementById("row-L2")', 'rows from before the search stayed');
        $browser->waitForText('#hits', 'objects');

        // As when something else is changed while rows that were asked for anew are on their way: they are asked for once more, and not
        // for ever where that does not help.
        $browser->js(
            <<<'JS'
                const { ledger } = shelfBench, fetch = ledger.fetch.bind(ledger);
                window.asked = 0;
                ledger.fetch = (...how) => (window.asked++, fetch(...how));
                document.querySelector('#rows').innerHTML = window.late;
                setTimeout(() => ledger.hears({ ...ledger.known, desk: ledger.known.desk + 1 }));
            JS
            ,
        );
        $browser->waitUntil('return window.asked === 2 && shelfBench.ledger.open === 0', 'rows that are old again stayed');
        usleep(300_000);
        self::assertSame(2, $browser->js('return window.asked'));
    }

    public function test_states_are_shown_in_the_order_in_which_they_were_heard_of_however_long_each_takes(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->js(
            <<<'JS'
                const Plain = DecompressionStream;
                window.DecompressionStream = function (format) {
                    window.DecompressionStream = Plain;
                    const late = new TransformStream({
                        transform: (chunk, to) => new Promise((resolve) => setTimeout(resolve, 1500)).then(() => to.enqueue(chunk)),
                    });
                    return { writable: late.writable, readable: late.readable.pipeThrough(new Plain(format)) };
                };
                shelfBench.setRung(['L33'], 0);
                shelfBench.setRung(['L33'], 3);
            JS
            ,
        );
        $browser->waitForText('#message', '91 Planting: Coarse.');
        usleep(1_900_000);
        $tree = self::number($browser, 'Tree#20');
        self::assertSame(3, $browser->js('return shelfBench.canvas.states[arguments[0]] & 15', $tree));
    }

    public function test_two_windows_see_each_others_changes(): void
    {
        $person = $this->arrival();
        $path = $person->takeIn(self::demoFile());
        [$first, $second] = [$this->browser(tall: true), $this->browser(tall: true)];
        foreach ([$first, $second] as $window) {
            $window->as($person)->visit($path)->waitFor('#ledger-grid');
        }
        $first->js('shelfBench.server.ask("POST", "/layers", { name: "From the first window" })');
        $second->waitForText('#rows', 'From the first window', 12);
        $second->js('shelfBench.setRung(["L2"], 0)');
        $first->waitUntil(
            'return document.querySelector("#row-L2 .rung").getAttribute("aria-label") === "Hidden"',
            'the rung did not arrive',
            12,
        );

        // What one is typing stays while the other changes something; what was left alone is then as the other has made it.
        $name = $first->js('return document.querySelector("#row-L3").dataset.name');
        $first->js('document.querySelector("#row-L3").focus()');
        $first->press('F2')->waitFor('#row-L3 .rename');
        $first->type('#row-L3 .rename', 'Half a na');
        $second->js('shelfBench.server.ask("PATCH", "/rows/L3", { name: "From the second window" })');
        $second->js('shelfBench.setRung(["L2"], 3)');
        $first->waitUntil(
            'return document.querySelector("#row-L2 .rung").getAttribute("aria-label") !== "Hidden"',
            'the other rung did not arrive',
            12,
        );
        self::assertSame('Half a na', $first->js('return document.activeElement.value'), "the field for $name is gone");
        $first->press('Escape')->waitForText('#row-L3 .label', 'From the second window');
        self::assertTrue($first->js('return document.activeElement.id === "row-L3"'), 'the row has not got the keyboard back');

        // A row that goes leaves the keyboard to what stands there then.
        $first->press('End')->waitUntil('return document.activeElement.dataset?.name === "From the first window"', 'End leads elsewhere');
        $key = $first->js('return document.activeElement.dataset.key');
        $second->js('shelfBench.server.ask("DELETE", `/layers/${arguments[0].slice(1)}`)', $key);
        $first->waitUntil("return document.getElementById('row-$key') === null", 'the layer stays', 12);
        $first->waitUntil('return document.activeElement.classList.contains("row")', 'the keyboard is lost');
        $last = $first->js('return document.activeElement.dataset.key');
        self::assertSame($last, $first->js('return [...document.querySelectorAll(".rows .row")].at(-1).dataset.key'));
        // Scrolled out of sight, it is still there to go on from.
        $first->js('document.querySelector("#lens-objects").click()');
        $first->waitFor('.window[data-lens=objects] .row')->js('document.querySelector(".rows .row").focus()');
        $first->js('shelfBench.ledger.scroll.scrollTop = 20000');
        $first->waitUntil('return document.activeElement === document.body', 'the row is still here');
        $first->press('ArrowDown')->waitUntil('return document.activeElement.ariaRowIndex === "3"', 'the keyboard does not come back');
    }

    public function test_a_hidden_layer_is_not_sent_and_comes_when_it_is_shown(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->js('shelfBench.setRung(["L33"], 0)');
        $browser->waitForText('#message', '91 Planting: Hidden.');
        $tree = self::number($browser, 'Tree#20');
        $browser->visit((string) parse_url($browser->driver->getCurrentURL(), PHP_URL_PATH))->waitFor('#ledger-grid')->settled();
        self::assertFalse($browser->js('return shelfBench.canvas.placements.has(arguments[0])', $tree));
        $packs = $browser->js('return shelfBench.canvas.packs.here.size');
        $browser->js('shelfBench.setRung(["L33"], 5)');
        $browser->waitUntil("return shelfBench.canvas.placements.has($tree)", 'the tree did not come')->settled();
        self::assertGreaterThan(
            $packs,
            $browser->js('return shelfBench.canvas.packs.here.size'),
            'the packs of the hidden layer had not been sent',
        );
        // What was drawn first stands for the project.
        $browser
            ->visit('/projects')
            ->waitUntil('return document.querySelector(".project img")?.naturalWidth === 248', 'there is no picture');
    }
}
