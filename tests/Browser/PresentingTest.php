<?php

declare(strict_types=1);

namespace Tests\Browser;

use Tests\Browser\Support\Browser;

/** Views walked through as a presentation. */
final class PresentingTest extends BrowserTestCase
{
    public function test_a_presentation_is_stepped_through_by_key_and_by_button_at_any_width(): void
    {
        $browser = $this->workbench(drawn: false);
        $camera = '{"eye":[-30,-40,25],"target":[20,12,2],"fov":40,"aspect":1.6}';
        $keep = static function (string $values) use ($browser): void {
            $browser->js("return shelfBench.server.ask('POST', '/views', $values)");
        };
        $keep("{ name: 'From the gate', keep_rungs: 1, keep_camera: 1, camera: '$camera' }");
        $browser->js('return shelfBench.server.ask("POST", "/rungs", { keys: "L5,L6", rung: 0 })');
        $keep('{ name: "Without the roof", note: "The roof is lifted off.", keep_rungs: 1 }');
        $browser->waitFor('#shelf-V2')->press('Alt+p')->waitFor('#present');
        $this->assertStep($browser, 2, 'Without the roof');
        self::assertSame('The roof is lifted off.', $browser->js('return document.getElementById("present-note").textContent'));
        $this->whole($browser);
        $lifted = $browser->js('return shelfPresenting.canvas.states.filter((state) => state > 0).length');
        $browser->press('ArrowLeft');
        $this->assertStep($browser, 1, 'From the gate');
        $this->whole($browser);
        self::assertGreaterThan($lifted, $browser->js('return shelfPresenting.canvas.states.filter((state) => state > 0).length'));
        self::assertNoFindings($browser, 'presentation');
        $browser->size(360, 640);
        $browser->click('#present-next');
        $this->assertStep($browser, 2, 'Without the roof');
        self::assertSame(true, $browser->js('return document.documentElement.scrollWidth <= innerWidth'), 'nothing sticks out');
        $browser->press('Home');
        $this->assertStep($browser, 1, 'From the gate');
        $browser->press('Escape')->waitFor('#shelf-V2');
        self::assertSame([], $browser->complaints());
    }

    private function assertStep(Browser $browser, int $step, string $name): void
    {
        $browser->waitUntil(
            "return window.shelfPresenting?.shown === $step - 1 && document.getElementById('present-name').textContent === '$name'",
            "step $step is not shown",
        );
    }

    private function whole(Browser $browser): void
    {
        $browser->waitUntil(
            'const { canvas } = shelfPresenting; return canvas.viewpoint.goal === null && !canvas.loading && canvas.packs.missing === 0 '.
                '&& performance.now() > canvas.movingUntil && canvas.painter.hasPicture && !canvas.stale && !canvas.painter.pass',
            'the picture is not whole',
        );
    }
}
