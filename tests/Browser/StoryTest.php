<?php

declare(strict_types=1);

namespace Tests\Browser;

/** The whole story once, as a modeler would go through it. */
final class StoryTest extends BrowserTestCase
{
    public function test_from_signing_in_to_a_view_that_brings_everything_back(): void
    {
        $browser = $this->browser()->signIn($this->person(), self::PASSWORD);
        self::assertStringContainsString('No project yet', $browser->text('main'));

        // Drop the file on the page.
        $browser->js(
            <<<'JS'
                const bytes = Uint8Array.from(atob(arguments[0]), (letter) => letter.charCodeAt(0));
                const transfer = new DataTransfer();
                transfer.items.add(new File([bytes], 'Marlpit Baths.glb'));
                document.body.dispatchEvent(new DragEvent('dragenter', { bubbles: true, dataTransfer: transfer }));
                document.body.dispatchEvent(new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: transfer }));
            JS
            ,
            base64_encode((string) file_get_contents(self::demoFile())),
        );
        $browser->waitForText('.report', '3,197 objects', 120);
        self::assertStringContainsString('80,744', $browser->text('.report'));
        $browser->click('.report-head .primary');
        $browser->waitForText('#foot', '38 layers')->settled();
        self::assertStringContainsString('No views yet', $browser->text('#shelf'));
        $colours = [];
        foreach ([[120, 330], [390, 330], [500, 400], [640, 300], [380, 250]] as [$x, $y]) {
            $colours[implode('-', $browser->pixel($x, $y))] = true;
        }
        self::assertGreaterThan(3, count($colours), 'there is a picture on the canvas');

        // Pick a tree in the canvas: it is named on hover, grape when picked, and the ledger knows.
        [$tree, $x, $y] = $this->facing($browser, 'Tree#20');
        $browser->clickCanvas($x, $y);
        $browser->waitForText('#card', 'Tree#20')->settled();
        $browser->waitForText('#hover-name', 'Tree#20');
        $this->assertGrape($browser, $x, $y);
        $browser->waitForText('#row-L33 .pill', '1');

        // Shift adds another, Alt takes it away again.
        $other = self::number($browser, 'Tree#21');
        $browser->js('shelfBench.canvas.framing.all(true)');
        $browser->settled();
        [$x, $y] = $browser->placeOf($other);
        $browser->clickCanvas($x, $y, 'Shift')->waitForText('#card', '2 parts picked');
        $browser->clickCanvas($x, $y, 'Alt')->waitForText('#card', 'Tree#20');
        $browser->clickCanvas($x, $y, 'Shift')->waitForText('#card', '2 parts picked');

        // File them under a new layer, then hide it: they are gone from the picture.
        $browser->click('[data-command="new-layer-from-pick"]')->waitFor('#row-name');
        $browser->type('#row-name', 'Trees to fell');
        $browser->click('#dialog .primary')->waitForText('#message', 'Create layer Trees to fell from 2 objects.');
        $browser->waitForText('#rows', 'Trees to fell');
        $row = $browser->find('.row[data-name="Trees to fell"]')->getAttribute('data-key');
        $browser
            ->waitUntil('return document.activeElement.dataset?.name === "Trees to fell"', 'the new layer has not the focus')
            ->press('0');
        $browser->waitForText('#message', 'Trees to fell: Hidden.')->settled();
        self::assertNotSame($other, $browser->js('return shelfBench.canvas.painter.numberAt(arguments[0], arguments[1])', $x, $y));
        self::assertSame(2, $browser->js('return Number(document.querySelector("#foot").textContent.match(/(\d+) hidden/)[1])'));

        // Rest on the roof's mark, make it a ghost by the name that unfolds, and keep the view.
        $browser->js('shelfBench.ledger.scroll.scrollTop = 0');
        $browser->waitFor('#row-L5');
        [$left, $top] = $browser->cornerOf('#row-L5 .rung svg');
        $browser->mouse('moved', $left + 6, $top + 8)->waitFor('#unfolded [data-word="2"]')->click('#unfolded [data-word="2"]');
        $browser->waitForText('#message', '20 Roof: Ghost.')->settled();
        $browser->click('[data-command="keep-view"]')->waitFor('#view-name');
        $browser->type('#view-name', 'Without the trees');
        $browser->click('#dialog .primary')->waitForText('#shelf', 'Without the trees');
        $browser->waitUntil('return document.querySelector(".view img")?.naturalWidth === 248', 'the view has no picture');
        $kept = $browser->pixel($x, $y);

        // Change things: show the trees, move the camera. The dot says that the desk differs.
        $browser->js('shelfBench.setRung([arguments[0]], 5)', $row);
        $browser->waitForText('#message', 'Trees to fell: Full.')->waitFor('.view.current .differs');
        $eye = $browser->js('return shelfBench.canvas.viewpoint.get().eye');
        $browser->js('shelfBench.canvas.viewpoint.set({ eye: [5, -40, 9], target: [0, 0, 2], fov: 40 }, true)');
        $browser->settled();

        // Apply the view: camera, rungs and pixels are back.
        $browser->click('.view-picture')->waitForText('#message', 'Without the trees applied.');
        $browser->waitUntil('return document.querySelector(".view.current .differs") === null', 'the dot stays')->settled();
        usleep(500_000);
        $browser->settled();
        self::assertEqualsWithDelta($eye, $browser->js('return shelfBench.canvas.viewpoint.get().eye'), 0.01);
        self::assertEqualsWithDelta($kept, $browser->pixel($x, $y), 12);

        // Take back: the desk by Z, the sorting by Ctrl+Z, each on its own.
        $browser->js('document.querySelector("#canvas canvas").focus()');
        $browser->press('z')->waitForText('#message', 'Taken back: Apply view Without the trees.');
        $browser->press('Control+z')->waitForText('#message', 'Undone: Keep view Without the trees.');
        $browser->press('Control+z')->waitForText('#message', 'Undone: Create layer Trees to fell');
        $browser->waitUntil('return !document.querySelector("#rows").textContent.includes("Trees to fell")', 'the layer is still there');
        $browser->press('Control+y')->waitForText('#message', 'Redone: Create layer Trees to fell');
        self::assertSame([], $browser->complaints());
    }
}
