<?php

declare(strict_types=1);

namespace Tests\Browser;

use Tests\Browser\Support\Browser;

/** What is done a hundred times a day, by mouse and by keyboard. */
final class GesturesTest extends BrowserTestCase
{
    public function test_one_click_on_a_mark_hides_and_one_gives_back_however_quick_and_whatever_the_answer_takes(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        $bars = static fn (string $row): mixed => $browser->js(
            'return document.querySelectorAll(`#row-${arguments[0]} .rung .on`).length',
            $row,
        );
        $own = static fn (string $row): mixed => $browser->js('return document.querySelector(`#row-${arguments[0]}`).dataset.own', $row);
        // Wherever in the mark; it shows before the server has answered.
        [$x, $y] = $browser->middleOf('#row-L5 .rung');
        $answers = self::holdAnswers($browser);
        foreach ([-12, 0, 12] as $aside) {
            $browser->clickAt($x + $aside, $y);
            self::assertSame(0, $bars('L5'), 'it is not hidden at once');
            $browser->clickAt($x + $aside, $y);
            self::assertSame(5, $bars('L5'), 'it is not given back at once');
        }
        $answers();
        $browser->waitUntil('return shelfBench.marks.ahead.size === 0', 'the answers do not come');
        self::assertSame([5, '5'], [$bars('L5'), $own('L5')]);

        // What it was comes back, also after two clicks within 80 milliseconds, and after those of a reload.
        $browser->js('return shelfBench.setRung(["L5"], 2)');
        $browser->clickAt($x, $y)->waitForText('#message', '20 Roof: Hidden.');
        $browser->js('location.reload()');
        $browser->waitUntil('return window.shelfBench && document.querySelectorAll("#row-L5 .rung .on").length === 0', 'it is shown');
        $browser->js('shelfBench.canvas.frame = () => {}');
        $browser->clickAt($x, $y)->waitForText('#message', '20 Roof: Shown again.');
        self::assertSame('2', $own('L5'));
        $browser->clickAt($x, $y);
        usleep(80_000);
        $browser->clickAt($x, $y)->waitUntil('return shelfBench.marks.ahead.size === 0', 'the answers do not come');
        self::assertSame([2, '2'], [$bars('L5'), $own('L5')]);

        // By keyboard: hidden by number, the rungs unfolded, one chosen; the row has the keyboard again.
        $browser->js('shelfBench.ledger.focus(shelfBench.ledger.row("L5"))');
        $browser->press('0')->waitForText('#message', '20 Roof: Hidden.');
        $browser->press('Shift+u')->waitFor('#unfolded:popover-open')->waitForText('#unfolded .why-line', 'is hidden by its own setting');
        $browser->waitUntil('return document.activeElement.dataset.word === "0"', 'the rung that it has is not pointed out');
        $browser->press('ArrowUp', 'ArrowUp')->press('Enter')->waitForText('#message', '20 Roof: Ghost.');
        $browser->waitUntil('return document.activeElement.dataset.key === "L5"', 'the row has lost the keyboard');

        // Rested on, it unfolds though its row is drawn anew and the list moves meanwhile; not where another row came to be.
        $browser->click('#row-L7 .name');
        [$x, $y] = $browser->middleOf('#row-L6 .rung');
        $browser->mouse('moved', $x, $y)->js(
            'const row = document.querySelector("#row-L6"), copy = row.cloneNode(true); row.remove();'.
                'setTimeout(() => document.querySelector("#row-L5").after(copy), 200);'.
                'shelfBench.ledger.scroll.dispatchEvent(new Event("scroll"))',
        );
        $browser->waitFor('#unfolded:popover-open');
        // From one to the next: the next unfolds once the first has folded.
        $browser->mouse('moved', $x, $y + 28)->waitUntil('return shelfBench.marks.unfolded.mark?.closest(".row").id === "row-L7"', 'stays');
        $browser->press('Escape')->mouse('moved', $x, $y + 56)->mouse('moved', $x, $y + 57)->js('shelfBench.ledger.scroll.scrollTop = 28');
        usleep(1_200_000);
        self::assertNull($browser->js('return document.querySelector("#unfolded:popover-open")'));
        self::assertSame([], $browser->complaints());
    }

    public function test_drawing_over_marks_gives_all_what_the_first_one_got_in_one_request(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        $browser->js('return shelfBench.setRung(["L7"], 1)');
        $browser->js(
            'const { server } = shelfBench, ask = server.ask.bind(server); window.asked = [];'.
                'server.ask = (method, path, values) => (path === "/pulse" || asked.push(path), ask(method, path, values));',
        );
        $hidden = static fn (): mixed => $browser->js(
            'return [...document.querySelectorAll(".rows .row")].filter(({ dataset }) => dataset.own === "0")'.
                '.map(({ dataset }) => dataset.key)',
        );
        $browser->drag('#row-L6 .rung', '#row-L9 .rung')->waitForText('#message', '4 layers: Hidden.');
        self::assertSame(['L6', 'L7', 'L8', 'L9'], $hidden());
        self::assertSame(['/rungs'], $browser->js('return asked'));
        // Back over fewer: each gets what it had; those that the pointer went over and came back from get nothing.
        [$x, $y] = $browser->middleOf('#row-L8 .rung');
        $browser->mouse('moved', $x, $y)->mouse('pressed', $x, $y)->mouse('moved', $x, $y - 84)->mouse('moved', $x, $y - 28);
        $browser->mouse('released', $x, $y - 28)->waitForText('#message', '2 layers: Shown again.');
        self::assertSame(['L6', 'L9'], $hidden());
        self::assertSame('1', $browser->js('return document.querySelector("#row-L7").dataset.own'));
        $browser->click('#message [data-command=desk-undo]')->waitForText('#message', 'Taken back');
        self::assertSame(['L6', 'L7', 'L8', 'L9'], $hidden());
        // Escape leaves it, and no row is dragged.
        $browser->mouse('moved', $x, $y)->mouse('pressed', $x, $y)->mouse('moved', $x, $y + 56);
        self::assertTrue($browser->has('.swept'));
        $browser->press('Escape')->mouse('released', $x, $y + 56);
        self::assertFalse($browser->has('.swept'));
        self::assertSame(['L6', 'L7', 'L8', 'L9'], $hidden());
        // Only this, and all again.
        $browser->mouse('moved', $x, $y)->clickAt($x, $y, 'Control')->waitForText('#message', 'isolated');
        $browser->clickAt($x, $y, 'Control')->waitForText('#message', 'Everything is back as it was.');
        // The pick's own mark.
        $browser->js('return shelfBench.pick({ keys: "L3", mode: "replace" })');
        $browser->click('#card .rung')->waitForText('#message', 'Hidden')->click('#card .rung')->waitForText('#message', 'Shown again');
        self::assertSame([], $browser->complaints());
    }

    public function test_a_click_on_a_row_never_costs_the_pick_and_the_pick_before_is_one_key_away(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        $browser->js('return shelfBench.server.ask("POST", "/tags", { name: "Wet", keys: "O5,O6" })');
        $picked = static fn (): mixed => $browser->js('return shelfBench.reading.then(() => shelfBench.picked)');
        $is = static fn (int $count): Browser => $browser->waitUntil("return shelfBench.picked === $count", "not $count are picked");
        // The count picks, with Shift it adds, with Alt it takes away; a row becomes current.
        $browser->click('#row-L3 button.count');
        $is(14);
        $browser->clickWith('#row-L4 button.count', 'Shift');
        $is(67);
        $browser->clickWith('#row-L3 button.count', 'Alt');
        $is(53);
        foreach (['tags', 'kinds', 'materials', 'sources', 'layers'] as $lens) {
            $browser->js('return shelfBench.turn(document.getElementById("lens-" + arguments[0]))', $lens);
            $browser->waitFor(".window[data-lens=$lens] .row .label")->click('.rows .row .label');
            $browser->waitUntil('return shelfBench.ledger.selected.size === 1', "no row of $lens is current");
            self::assertSame(53, $picked(), $lens);
        }
        $browser->click('#row-L5 .label')->clickWith('#row-L8 .label', 'Shift');
        $browser->waitUntil('return shelfBench.ledger.selected.size === 4', 'the rows between are not current');
        $browser->clickWith('#row-L10 .label', 'Control');
        self::assertSame([5, 53], [$browser->js('return shelfBench.ledger.selected.size'), $picked()]);
        // The row of an object is the object: a click picks it, Shift all between, Ctrl one more or less.
        $browser->click('#row-L14 .fold')->waitFor('#row-L14 + .row:not(.is-layer)');
        $objects = $browser->js(
            'return [...document.querySelectorAll("#rows .row")].map((row) => row.dataset.key).filter((key) => key[0] === "O")',
        );
        self::assertIsArray($objects);
        $browser->click("#row-$objects[0] .label");
        $is(1);
        $browser->clickWith("#row-$objects[2] .label", 'Shift');
        $is(3);
        $browser->clickWith("#row-$objects[1] .label", 'Control');
        $is(2);
        // A click on nothing clears; one key brings it back, and those before it, and forth.
        $browser->js('document.querySelector("#canvas canvas").focus()');
        $browser->press('Escape');
        $is(0);
        foreach ([['(', 2], ['(', 3], ['(', 1], ['(', 53], [')', 1]] as [$key, $count]) {
            $browser->press($key);
            $is($count);
        }
        $browser->click('[data-command=pick-after]');
        $is(3);
        // By keyboard: Enter picks what the row holds, Shift adds it; Shift and an arrow make rows current.
        $browser->js('shelfBench.ledger.focus(shelfBench.ledger.row("L3"))');
        $browser->press('Enter');
        $is(14);
        $browser->press('ArrowDown', 'Shift+Enter');
        $is(67);
        $browser->press('Shift+ArrowDown', 'Shift+ArrowDown');
        $browser->waitUntil('return [...shelfBench.ledger.selected].join() === "L4,L5,L6"', 'the rows are not current');
        self::assertSame(67, $picked());
        self::assertSame([], $browser->complaints());
    }

    public function test_what_stays_hidden_is_named_where_it_was_shown_and_mended_there(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        $browser->js('return shelfBench.pick({ keys: "L4", mode: "replace" })');
        $browser->js('return shelfBench.server.ask("POST", "/tags", { name: "Wet", from_pick: 1 })');
        $browser->js('return shelfBench.server.ask("POST", "/tag", { tag: 1, mode: "add" })');
        $browser->js('return shelfBench.setRung(["T1"], 0)');
        // A click on a row that something else hides: the answer names it, with a button that mends it.
        $browser->click('#row-L4 .rung')->waitForText('#message', 'All 53 stay hidden: by tag Wet.');
        $browser->click('#message [data-command=mend-held]')->waitForText('#message', 'Tag Wet no longer holds them down.');
        $browser->waitUntil('return document.querySelectorAll("#row-L4 .rung .on").length === 5', 'the layer is not shown');
        // The card leads to why, for many at once; each cause is mended alone or all together.
        $browser->js('return shelfBench.setRung(["T1"], 0)');
        $browser->js('return shelfBench.setRung(["L4"], 1)');
        $browser->waitForText('#card', '53 hidden')->click('#card p [data-command=why]');
        $browser->waitForText('#dialog', '53 of 53 in 53 objects are held below Full')->waitForText('#dialog', 'Layer 12 Steel');
        $browser->click('#dialog [data-what=all]')->waitForText('#dialog', 'Everything of 53 objects is drawn in full');
        $browser->press('Escape');
        // By keyboard on several rows.
        $browser->js('return shelfBench.setRung(["L4", "L5"], 2)');
        $browser->js('shelfBench.ledger.selectAll(["L4", "L5"]); shelfBench.ledger.focus(shelfBench.ledger.row("L5"))');
        $browser->press('y')->waitForText('#dialog', 'in 2 layers are held below Full')->click('#dialog [data-what=all]');
        $browser->waitForText('#dialog', 'Everything of 2 layers is drawn in full')->press('Escape');
        // What was found: hidden, shown, thinned out from the bar of hits.
        $browser->type('#words', 'layer:steel')->waitForText('#hits', '53 objects')->click('[data-command=hits-hide]');
        $browser->waitForText('#message', '53 objects: Hidden.');
        $browser->click('[data-command=hits-show]')->waitForText('#message', 'Shown again.');
        $browser->click('[data-command=hits-rung]')->waitForText('#row-menu', 'Coarse');
        $browser->js('[...document.querySelectorAll("#row-menu .item")].find((item) => item.textContent === "Box").click()');
        $browser->waitForText('#message', '53 objects: Box.');
        self::assertSame([], $browser->complaints());
    }

    public function test_a_file_is_dropped_onto_the_open_workbench_while_somebody_else_sorts(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        $browser->js('return shelfBench.server.ask("POST", "/views", { name: "Before", keep_rungs: 1 })');
        $gltf = \Tests\Core\Support\Gltf::triangle();
        $gltf['nodes'] = [
            ['name' => 'Deckchair', 'mesh' => 0, 'extras' => ['layer' => 'Loose furniture']],
            ['name' => 'Rope', 'mesh' => 0, 'extras' => ['layer' => '41 lane ropes']],
            ['name' => 'Odd', 'mesh' => 0],
            ['name' => 'Loop', 'mesh' => 0, 'extras' => ['layer' => 'hooks']],
        ];
        $gltf['scenes'] = [['nodes' => [0, 1, 2, 3]]];
        foreach ([20, 22] as $layer) {
            $browser->js('return shelfBench.server.ask("POST", "/layers", { name: "Hooks", parent: arguments[0] })', $layer);
        }
        $file = (string) file_get_contents(\Tests\Core\Support\Gltf::file($gltf));
        $drop = static fn (string $name, string $text): mixed => $browser->js(
            <<<'JS'
                const transfer = new DataTransfer();
                transfer.items.add(new File([arguments[1]], arguments[0]));
                const fire = (type) => document.querySelector('#canvas').dispatchEvent(
                    new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer: transfer }));
                fire('dragenter'); window.saidOver = document.body.classList.contains('file-over'); fire('dragover'); fire('drop');
            JS,
            $name,
            $text,
        );
        $drop('Room.txt', 'no model');
        $browser->waitForText('#message', '“Room.txt” is not a .glb, .gltf or .zip file.');
        // Somebody else, all the while.
        $browser->js(
            'window.sorting = (async () => { for (let number = 0; number < 12; number++) '.
                'await shelfBench.server.ask("POST", "/layers", { name: `Other ${number}` }); })()',
        );
        $drop('loungers.gltf', $file);
        self::assertTrue($browser->js('return window.saidOver'));
        $browser->waitForText('#dialog-title', 'loungers.gltf')->waitForText('#dialog', '1 view has not seen it');
        $browser->js(
            'const sort = document.querySelector("#add-sort"); sort.value = "property"; '.
                'sort.dispatchEvent(new Event("change", { bubbles: true })); document.querySelector("#add-landing").value = "4"',
        );
        // Others' answers take the place of what is said at any moment: all of it is noted.
        $browser->js(
            'window.said = []; const message = document.querySelector("#message"); '.
                'new MutationObserver(() => window.said.push(message.textContent))'.
                '.observe(message, { childList: true, characterData: true, subtree: true })',
        );
        $browser->click('#dialog .primary')->waitUntil(
            'return window.said.some((one) => one.includes("loungers.gltf is in: 4 objects."))',
            'nobody says that the file is in',
        );
        $browser->waitForText('#sources', '2 sources')->waitForText('#shelf-V1 .badge', '4 new');
        // Two layers are called as the file says: somebody is asked which is meant.
        $browser->waitForText('#dialog-title', 'Which layers are meant?');
        self::assertNoFindings($browser, 'which layers are meant');
        $browser->waitUntil('return document.activeElement.matches("#dialog select")', 'the question has not the keyboard');
        $browser->press('ArrowDown')->click('#dialog .primary')->waitUntil(
            'return window.said.some((one) => one.includes("Match layer hooks with what is here."))',
            'nobody says that the layers are matched',
        );
        $browser->js('return window.sorting');
        $browser->heard();
        $homes = $browser->js(
            'return shelfBench.server.html("/ledger?lens=objects&from=0&count=200&words=" + encodeURIComponent("source:loungers"))'.
                '.then((html) => [...new DOMParser().parseFromString(html, "text/html").querySelectorAll(".row")]'.
                '.map((row) => row.dataset.name))',
        );
        self::assertSame(['Deckchair', 'Rope', 'Odd', 'Loop'], $homes);
        $browser->js('shelfBench.ledger.scroll.scrollTop = 0');
        $browser->waitFor('#row-L4')->waitForText('#row-L4 .count', '54')->waitForText('.row[data-name="41 Lane ropes"] .count', '272');
        // Its report is one click away, and so are those of the others.
        $browser->click('#sources')->waitForText('#row-menu', 'loungers.gltf')->waitForText('#row-menu', 'Add a file…');
        $browser->js('[...document.querySelectorAll("#row-menu .item")].find((item) => item.textContent === "loungers.gltf").click()');
        $browser->waitForText('h1', 'What came')->waitForText('.original', 'The file as it came is kept');
        $browser->click('.report-sources a:not([aria-current])')->waitForText('.report-head', 'Marlpit Baths');
        self::assertNoFindings($browser, 'the report of one of two sources');
        self::assertSame([], $browser->complaints());
    }

    public function test_what_is_typed_is_for_what_was_called_and_the_last_thing_is_done_again(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        // The dialog takes its time; what is typed meanwhile is its name, and no command.
        $browser->js('return shelfBench.pick({ keys: "L3", mode: "replace" })');
        $browser->js(
            'const { server } = shelfBench, html = server.html.bind(server);'.
                'server.html = async (path) => (await new Promise((go) => setTimeout(go, 900)), html(path));',
        );
        $browser->js('document.querySelector("#canvas canvas").focus()');
        $browser->press('v', 'C', 'u', 't', '0', 'x', 'Backspace')->waitFor('#view-name');
        $browser->waitUntil('return document.querySelector("#view-name").value === "Cut0"', 'what was typed is not in the field');
        self::assertSame('5', $browser->js('return document.querySelector("#row-L3").dataset.own'));
        // Whatever takes the keyboard from the dialog, what is typed is still for it.
        $browser->js('document.activeElement.blur()');
        $browser->press('x', 'Backspace', 'Enter')->waitForText('#shelf', 'Cut0');
        $browser->press('u')->press('s', 't', 'e', 'e', 'l', 'Enter')->waitForText('#message', 'File 14 objects under 12 Steel.');
        $browser->press('v', 'X', 'Escape');
        usleep(1_200_000);
        self::assertFalse($browser->js('return document.querySelector("#dialog").open'));
        // The same once more, on what is picked then.
        $browser->js('return shelfBench.pick({ keys: "L5", mode: "replace" })');
        $browser->press('F4')->waitForText('#row-L5 .count', '0')->waitForText('#message', 'objects under 12 Steel.');
        $browser->js('return shelfBench.setRung(["L7"], 2)');
        $browser->js('return shelfBench.pick({ keys: "L8", mode: "replace" })');
        $browser->press('F4')->waitForText('#message', '154 objects: Ghost.');
        // N in a folded row unfolds it and stands in the new one.
        $browser->js('shelfBench.ledger.focus(shelfBench.ledger.row("L9")); shelfBench.ledger.select("L9", false)');
        $browser->press('n')->waitFor('#row-name');
        $browser->type('#row-name', 'Frames of doors')->press('Enter')->waitForText('#message', 'Create layer Frames of doors.');
        $browser->waitUntil('return document.activeElement.dataset.name === "Frames of doors"', 'the new row has not the keyboard');
        // A row that is locked says so before a field opens.
        $browser->js('return shelfBench.setLock(["L6"], 2)');
        $browser->js('shelfBench.ledger.focus(shelfBench.ledger.row("L6"))');
        $browser->press('F2')->waitForText('#message', '21 Roof skin is locked; open it first.');
        self::assertFalse($browser->has('.rename'));
        // The sheet of keys opens at its top and is searched; the command box knows what was used last.
        $browser->press('?')->waitFor('.keys input');
        self::assertSame(0, $browser->js('return document.querySelector("#dialog").scrollTop'));
        $browser->type('.keys input', 'eye height');
        self::assertSame(1, $browser->js('return [...document.querySelectorAll(".keys dd")].filter((one) => !one.hidden).length'));
        $browser->press('Escape');
        $browser->press('Control+k')->waitFor('.command-box input')->type('.command-box input', 'invert')->press('Enter');
        $browser->waitForText('#message', 'Inverted')->press('Control+k')->waitFor('#command-0');
        self::assertStringStartsWith('Invert', $browser->text('#command-0'));
        self::assertSame([], $browser->complaints());
    }

    /** From here on answers wait until what is returned is called. */
    private static function holdAnswers(Browser $browser): \Closure
    {
        $browser->js(
            'const { server } = shelfBench, send = server.send.bind(server); const held = new Promise((go) => (window.letGo = go));'.
                'server.send = (...how) => held.then(() => send(...how));',
        );

        return static fn () => $browser->js('window.letGo()');
    }

    public function test_the_card_keeps_its_actions_in_sight_and_leaves_clear_what_was_just_picked(): void
    {
        $browser = $this->workbench(tall: true);
        $browser->size(1024, 800);
        $browser->js('shelfBench.canvas.viewpoint.set({ eye: [15, -14, 9], target: [18, 10, 0], fov: 55 }, true)');
        $browser->settled();
        $found = $browser->js(
            'const { canvas } = shelfBench, { clientWidth: wide, clientHeight: high } = canvas.element;'.
                'for (let x = 40; x < wide - 80; x += 12) for (let y = high - 130; y > high - 260; y -= 12) '.
                'if (canvas.painter.numberAt(x, y) && !canvas.isGuarded(canvas.painter.numberAt(x, y))) return [x, y]; return null',
        );
        self::assertIsArray($found, 'nothing to pick where the card stands');
        [$x, $y] = $found;
        $isClear = fn (): mixed => $browser->js(
            'const { left, top } = shelfBench.canvas.element.getBoundingClientRect(), [x, y] = [left + arguments[0], top + arguments[1]];'.
                'const card = document.querySelector(".card").getBoundingClientRect();'.
                'return x < card.left || x > card.right || y < card.top || y > card.bottom',
            $x,
            $y,
        );
        // Folded, unfolded, and for the next pick while it is: what was picked is not under it.
        $browser->clickCanvas($x, $y)->waitForText('#card', 'triangles');
        $browser->waitUntil('return shelfBench.picked > 0', 'nothing is picked');
        self::assertTrue($isClear());
        $browser->press('j')->waitFor('#details .details-list');
        $acts = 'const at = (part) => document.querySelector(part).getBoundingClientRect(), card = at(".card"); '.
            'return [".card-acts", ".details-acts", ".card h2"].map(at)'.
            '.every(({ top, bottom }) => top >= card.top && bottom <= card.bottom)'.
            ' && card.bottom < innerHeight';
        $browser->waitUntil($acts, 'its actions are out of sight');
        self::assertTrue($isClear());
        self::assertTrue(
            $browser->js('const list = document.querySelector(".details-list"); return list.scrollHeight > list.clientHeight'),
        );
        // What is picked elsewhere lets it stand in its own corner.
        $browser->js('document.querySelector("#lens-objects").dispatchEvent(new PointerEvent("pointerdown", { bubbles: true }))');
        $browser->js('shelfBench.pick({ found: 1, words: "seat", mode: "replace" })');
        $browser->waitUntil('return document.querySelector("#card").className.trim() === "is-unfolded"', 'it stays aside');
        $browser->waitUntil($acts, 'its actions are out of sight');
        self::assertSame([], $browser->complaints());
    }

    public function test_a_wrong_file_is_answered_in_its_dialog_a_colour_opens_at_its_swatch_and_comparing_tints_nothing_by_itself(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        $browser->js('return shelfBench.server.ask("POST", "/views", { name: "Before", keep_rungs: 1 })');
        $browser->js('shelfBench.command("grid-read")');
        $file = (string) tempnam(sys_get_temp_dir(), 'shelf-sheet');
        foreach (['no grid at all', '', "Row,Number,Name,Before\nlayer,5,Roof,Halfway\n"] as $at => $text) {
            file_put_contents($file, $text);
            $browser->waitFor('#sheet-file')->find('#sheet-file')->sendKeys($file);
            $browser->waitForText('#dialog .error', ['has to begin with Row', 'The file is empty', 'line 2'][$at]);
            self::assertTrue($browser->js('return document.querySelector("#dialog[open] .error:not([hidden])") !== null'));
        }
        file_put_contents($file, "Row,Number,Name,Before\nlayer,5,Roof,Ghost\n");
        $browser->find('#sheet-file')->sendKeys($file);
        $browser->waitForText('#dialog', 'cell changes');
        unlink($file);
        $browser->press('Escape');

        // The colour is chosen at the swatch of the row.
        $browser->js('shelfBench.menus.colour(document.querySelector("#row-L5"), () => 0)');
        [$left, $top] = (array) $browser->js(
            'const [input, swatch] = ["#row-colour", "#row-L5 .swatch"].map((of) => document.querySelector(of).getBoundingClientRect());'.
                'return [input.left - swatch.left, input.top - swatch.bottom]',
        );
        self::assertEqualsWithDelta([0, 0], [$left, $top], 1);
        $browser->js('document.getElementById("row-colour").remove()');

        // Looking at a comparison leaves the canvas as it is.
        $browser->js('return shelfBench.server.ask("POST", "/tint", { by: "layer" })');
        $tint = $browser->js('return document.querySelector("#canvas-state").textContent');
        $browser->js('shelfBench.command("compare")');
        $browser->waitFor('[data-compare]')->press('Escape')->waitUntil('return !document.querySelector("#dialog").open', 'it stays');
        self::assertSame($tint, $browser->js('return document.querySelector("#canvas-state").textContent'));
        self::assertStringContainsString('Layer', (string) $browser->js('return document.querySelector("#legend").textContent'));
        // Refusals, and a colour that nobody has clicked for.
        $other = array_filter($browser->complaints(), static fn (string $said): bool => preg_match('~422|User activation~', $said) !== 1);
        self::assertSame([], array_values($other));
    }

    public function test_three_hints_of_a_first_visit_are_gone_for_good_once_closed_or_followed(): void
    {
        $person = $this->arrival();
        $of = static fn (string $name): string => (string) getenv("DB_$name");
        $database = new \PDO("pgsql:host={$of('HOST')};port={$of('PORT')};dbname={$of('DATABASE')}", $of('USERNAME'), $of('PASSWORD'));
        $database->exec("UPDATE users SET hints = 'hide pick keep' WHERE id = (SELECT max(id) FROM users)");
        $browser = $this->browser(tall: true)->as($person)->visit($person->takeIn(self::demoFile()));
        $browser->waitUntil('return window.shelfBench?.canvas.loading === false', 'the workbench does not open');
        $browser->js('shelfBench.canvas.frame = shelfBench.canvas.open = () => {}');
        $shown = static fn (): mixed => $browser->js(
            'return [...document.querySelectorAll("[data-hint]:not([hidden])")].map(({ dataset }) => dataset.hint)',
        );
        // An empty shelf says itself what it is for.
        self::assertSame(['hide', 'pick'], $shown());
        self::assertNoFindings($browser, 'hints');
        $browser->js('return shelfBench.server.ask("POST", "/views", { name: "Before", keep_rungs: 1 })');
        $browser->waitUntil('return document.querySelectorAll("[data-hint]:not([hidden])").length === 3', 'where to keep is not said');
        // Each stands beside what it is about, and over none of it.
        self::assertSame(
            [true, true, true],
            $browser->js(
                'return ["#rows .row:nth-child(2) .rung", "#rows .row:nth-child(5) .count", "#shelf .keep button"].map((of, at) => {'.
                    'const [a, b] = [document.querySelector(of), document.querySelectorAll("[data-hint]")[at]].map((e) => '.
                    'e.getBoundingClientRect()); return b.left > a.right && b.top < a.bottom && b.bottom > a.top })',
            ),
        );
        [$x, $y] = $browser->middleOf('#row-L5 .rung');
        $browser->clickAt($x, $y)->waitUntil('return !document.querySelector("[data-hint=hide]")', 'hiding leaves its hint');
        $browser->js('document.querySelector("[data-hint=pick] button").focus()');
        $browser->press('Enter')->waitUntil('return !document.querySelector("[data-hint=pick]")', 'it is not closed by key');
        $browser->waitUntil('return performance.getEntriesByType("resource").filter(({ name }) => name.endsWith("/hints")).length > 1', '');
        $browser->js('location.reload()');
        $browser->waitUntil('return window.shelfBench?.canvas.loading === false', 'the workbench does not open')->waitFor('[data-hint]');
        self::assertSame(['keep'], $shown());
        $browser->js('shelfBench.canvas.frame = shelfBench.canvas.open = () => {}');
        // A view that was refused was not kept.
        $browser->press('v')->waitFor('#view-name')->type('#view-name', 'After');
        $browser->js('document.querySelectorAll("#dialog [name^=keep_]").forEach((box) => { box.checked = false })');
        $browser->press('Enter')->waitForText('#dialog', 'A view keeps at least one thing');
        self::assertSame(['keep'], $shown());
        $browser->js('document.querySelector("#dialog [name=keep_rungs]").checked = true');
        $browser->click('#view-name')->press('Enter')->waitForText('#shelf', 'After');
        self::assertSame([], $shown());
        $browser->waitUntil('return performance.getEntriesByType("resource").some(({ name }) => name.endsWith("/hints"))', '');
        self::assertSame('', $database->query('SELECT hints FROM users ORDER BY id DESC LIMIT 1')?->fetchColumn());
        self::assertSame([], $browser->complaints());
    }

    public function test_what_is_done_to_one_of_the_chosen_rows_is_done_to_all_of_them(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        $browser->js('shelfBench.ledger.focus(shelfBench.ledger.row("L7"))');
        $browser->press('Shift+ArrowDown', 'Shift+ArrowDown');
        $browser->waitUntil('return shelfBench.ledger.selected.size === 3', 'the rows are not chosen');
        $parents = static fn (): mixed => $browser->js(
            'return ["L7", "L8", "L9"].map((key) => shelfBench.ledger.row(key)?.getAttribute("aria-level"))',
        );
        // By key: all move into one, which is found by a part of its name.
        $browser->press('Shift+m')->waitForText('#dialog-title', 'Move 3 rows into');
        $browser->type('#dialog [data-narrow]', 'water')->press('Enter')->waitForText('#message', 'Move 3 layers into 44 Water');
        $browser->waitUntil('return (shelfBench.ledger.row("L7")?.getAttribute("aria-level") ?? "2") === "2"', 'it stays');
        $browser->press('Control+z')->waitForText('#message', 'Undone: Move 3 layers');
        $browser->waitUntil('return shelfBench.ledger.row("L9")?.getAttribute("aria-level") === "1"', 'they do not come back');
        self::assertSame(['1', '1', '1'], $parents());

        // By mouse: what pictures show of all of them, and what exports leave out, from the menu of one.
        [$x, $y] = $browser->middleOf('#row-L8 .name');
        $menu = static function (string $label) use ($browser, $x, $y): void {
            $browser->waitUntil('return !document.querySelector("#dialog").open', 'the dialog stays');
            $browser->js('shelfBench.ledger.selected = new Set(["L7", "L8", "L9"])');
            $browser->mouse('moved', $x, $y)->mouse('pressed', $x, $y, button: 'right')->mouse('released', $x, $y, button: 'right');
            $browser->waitUntil(
                'const item = [...document.querySelectorAll("#row-menu:popover-open [role^=menuitem]")].find(({ textContent }) => '.
                    "textContent.includes('$label')); item?.click(); return item !== undefined",
                "the menu has no $label",
            );
        };
        $menu('In pictures');
        $browser->waitForText('#dialog-title', '3 layers')->click('#dialog [value="2"]')->press('Enter');
        $browser->waitForText('#message', '3 layers');
        $menu('Not for export');
        $browser->waitForText('#dialog-title', 'what is in 3 layers')->type('#hold-back', 'By others')->press('Enter');
        $browser->waitForText('#message', 'Keep out of exports 3 layers.');
        self::assertSame([], $browser->complaints());
    }

    public function test_a_set_is_dropped_on_a_set_or_joined_by_key_in_the_words_of_rules(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        foreach (['Seats' => 'seat kind:part', 'Lamps' => 'lamp', 'Benches' => 'bench'] as $name => $rule) {
            $make = 'return shelfBench.server.ask("POST", "/sets", { of: "rule", rule: arguments[1], name: arguments[0] })';
            $browser->js($make, $name, $rule);
        }
        $browser->click('#lens-sets')->waitFor('#row-E3');
        $drop = static fn (string $from, string $to): mixed => $browser->js(
            <<<'JS'
                const [from, to] = [...arguments].map((key) => shelfBench.ledger.row(key)), dataTransfer = new DataTransfer();
                const { left, top, height } = to.getBoundingClientRect();
                const how = { bubbles: true, cancelable: true, dataTransfer, clientX: left + 40, clientY: top + height / 2 };
                from.dispatchEvent(new DragEvent('dragstart', how));
                to.dispatchEvent(new DragEvent('dragover', how));
                const says = to.dataset.drop;
                to.dispatchEvent(new DragEvent('drop', how));
                from.dispatchEvent(new DragEvent('dragend', how));
                return says;
            JS,
            $from,
            $to,
        );
        self::assertSame('Join it and Seats…', $drop('E2', 'E1'));
        $browser->waitForText('#dialog-title', 'Lamps and Seats')->waitForText('#dialog', 'seat and kind:part or set="Lamps"');
        self::assertFalse($browser->js('return document.querySelector("#join-name").checkVisibility()'), 'no name is wanted yet');
        $browser->press('Enter')->waitForText('#message', 'New rule for set Seats.');
        $browser->waitUntil('return shelfBench.ledger.row("E1").dataset.rule.endsWith(\'or set="Lamps"\')', 'the rule stays');

        // By keyboard: the rows are chosen, the menu of one joins the others to it, in a new set.
        $browser->js('shelfBench.ledger.focus(shelfBench.ledger.row("E2"))');
        $browser->press('Shift+ArrowDown')->waitUntil('return shelfBench.ledger.selected.size === 2', 'the rows are not chosen');
        $browser->press('Shift+F10')->waitFor('#row-menu:popover-open');
        $browser->js(
            '[...document.querySelectorAll("#row-menu [role=menuitem]")].find('.
                '({ textContent }) => textContent === "Join the others to it…").focus()',
        );
        $browser->press('Enter')->waitFor('#dialog [value=new]');
        $browser->js('document.querySelector("#dialog [value=new]").focus()');
        $browser->press(' ')->waitUntil('return document.querySelector("#join-name").checkVisibility()', 'no name is asked for');
        $browser->js('document.querySelector("#join-name").select()');
        $browser->js('document.querySelector("#join-name").value = ""');
        $browser->find('#join-name')->sendKeys('To sit by light');
        $browser->press('Enter')->waitForText('#message', 'Keep live set To sit by light.');
        self::assertSame([], $browser->complaints());
    }

    public function test_two_windows_are_two_lists_and_a_doubled_one_goes_its_own_way(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        $name = static fn (): mixed => $browser->js('return new URL(location.href).searchParams.get("w")');
        $list = static fn (): mixed => $browser->js(
            'const { lens, rule, total } = document.querySelector("#rows .window").dataset; return [lens, rule, Number(total) > 0]',
        );
        $shows = static fn (string $lens, string $rule): Browser => $browser->waitUntil(
            'const { dataset } = document.querySelector("#rows .window") ?? {}; return window.shelfBench && dataset'.
                " && dataset.lens === '$lens' && dataset.rule === '$rule' && document.querySelector('#words').value === '$rule'",
            "it is not in the lens $lens with the line \"$rule\"",
        );
        $handles = static fn (): array => $browser->driver->getWindowHandles();
        $open = static function (string $script) use ($browser, $handles): string {
            $before = $handles();
            $browser->js($script);
            for ($tries = 0; count($handles()) === count($before) && $tries < 100; $tries++) {
                usleep(50_000);
            }
            $new = array_values(array_diff($handles(), $before))[0] ?? self::fail('No window opens.');
            $browser->driver->switchTo()->window($new);
            $browser->waitUntil('return window.shelfBench !== undefined', 'the other window does not open');

            return $new;
        };
        $first = $browser->driver->getWindowHandle();
        $browser->click('#lens-objects')->type('#words', 'bench');
        $shows('objects', 'bench');
        $firstName = $name();
        $second = $open('shelfBench.command("ledger-window")');
        $shows('objects', 'bench');
        $secondName = $name();
        $browser->js('return shelfBench.finder.search("")');
        $browser->click('#lens-tags');
        $shows('tags', '');
        // The same address once more: it begins alike, and goes its own way.
        $third = $open('open(location.href)');
        $browser->waitUntil("return new URL(location.href).searchParams.get('w') !== '$secondName'", 'it takes no name of its own');
        $browser->js('return shelfBench.own.ready');
        $shows('tags', '');
        $browser->js('return shelfBench.finder.search("door")');
        $browser->click('#lens-sets');
        $shows('sets', 'door');
        self::assertCount(3, array_unique([$firstName, $secondName, $name()]));
        // Each is as it was left, loaded anew as well.
        foreach ([[$third, 'sets', 'door'], [$second, 'tags', ''], [$first, 'objects', 'bench']] as [$window, $lens, $rule]) {
            $browser->driver->switchTo()->window($window);
            self::assertSame([$lens, $rule], array_slice((array) $list(), 0, 2));
            $before = $name();
            $browser->js('location.reload()');
            $shows($lens, $rule);
            self::assertSame($before, $name());
            if ($window !== $first) {
                $browser->driver->close();
            }
        }
        $browser->driver->switchTo()->window($first);
        // Pages that lead back lead to the list of their own window, whichever was used last.
        $before = $name();
        $browser->js('shelfBench.command("summary")');
        $browser->waitFor('.summary-page')->click('a.project-title');
        $shows('objects', 'bench');
        self::assertSame($before, $name());
        self::assertSame([], $browser->complaints());
    }

    public function test_nothing_is_cut_off_in_narrow_windows_and_narrow_ledgers(): void
    {
        $browser = $this->workbench(drawn: false);
        $out = static fn (string $selector): mixed => $browser->js(
            'return [...document.querySelectorAll(arguments[0])].filter((each) => each.checkVisibility())'.
                '.map((each) => [each.id || each.title, Math.round(each.getBoundingClientRect().right)])'.
                '.filter(([, right]) => right > arguments[1]).map(([name]) => name)',
            $selector,
            $browser->js('return innerWidth'),
        );
        foreach ([1280, 1100, 1024, 900, 800] as $width) {
            $browser->size($width, 800);
            self::assertSame($width, $browser->js('return document.documentElement.scrollWidth'));
            self::assertSame([], $out('.top button, .top .avatar, .tools button, .region-tools button, #slots button'), "$width wide");
        }
        $browser->size(1280, 800);
        foreach ([360, 400, 440, 496] as $width) {
            $browser->js('document.documentElement.style.setProperty("--ledger", `${arguments[0]}px`)', $width);
            $browser->waitUntil(
                'const lenses = document.querySelector(".lenses"); return lenses.scrollWidth === lenses.clientWidth',
                "lenses or tools are cut off in a ledger $width wide",
            );
        }
        // What does not fit stands in the menu, and the menu says where one is.
        $browser->js('document.documentElement.style.setProperty("--ledger", "360px")');
        $browser->waitUntil('return !document.getElementById("lens-nesting").offsetParent', 'five lenses are shown in a narrow ledger');
        $browser->click('#more-lenses')->waitForText('#row-menu', 'Objects');
        $browser->js('[...document.querySelectorAll("#row-menu button")].find((each) => each.textContent.includes("Nesting")).click()');
        $browser->waitFor('.window[data-lens=nesting]')->waitForText('#more-lenses', 'Nesting');
        $browser->js('document.documentElement.style.setProperty("--ledger", "600px")');
        $browser->waitForText('#more-lenses', 'More');
        self::assertSame([], $browser->complaints());
    }
}
