<?php

declare(strict_types=1);

namespace Tests\Browser;

use MarlpitBaths\MarlpitBaths;
use PHPUnit\Framework\TestCase;
use Tests\Browser\Support\Arrival;
use Tests\Browser\Support\Browser;

/** Drives the running application that bin/test has started. */
abstract class BrowserTestCase extends TestCase
{
    protected const PASSWORD = 'tidy-browser';

    /** @var list<Browser> */
    private array $browsers = [];

    /** @param bool $tall whether the window shows many rows; where a test needs few, a lower one is drawn sooner */
    protected function browser(bool $dark = false, bool $tall = false): Browser
    {
        $base = getenv('APP_URL');
        if (! is_string($base) || $base === '' || getenv('SHELF_STATE') === false) {
            self::fail('The browser tests need the running application that bin/test starts.');
        }

        return $this->browsers[] = Browser::open($base, $dark, $tall ? 800 : 640);
    }

    protected function tearDown(): void
    {
        foreach ($this->browsers as $browser) {
            if ($this->status()->isFailure() || $this->status()->isError()) {
                $browser->screenshot(getenv('SHELF_STATE').'/log/'.$this->name().'.png');
                $browser->quit();
            } else {
                $browser->release();
            }
        }
    }

    /** Makes an account; the name is new every time. */
    protected function person(): string
    {
        $email = 'p'.bin2hex(random_bytes(5)).'@marlpit.example';
        $of = static fn (string $name): string => (string) getenv("DB_$name");
        $database = new \PDO("pgsql:host={$of('HOST')};port={$of('PORT')};dbname={$of('DATABASE')}", $of('USERNAME'), $of('PASSWORD'));
        $database
            ->prepare('INSERT INTO users (name, email, password, created_at, updated_at) VALUES (?, ?, ?, now(), now())')
            ->execute(['Ida Keller', $email, password_hash(self::PASSWORD, PASSWORD_BCRYPT, ['cost' => 4])]);

        return $email;
    }

    /** Somebody new, signed in without a browser. */
    protected function arrival(): Arrival
    {
        return new Arrival((string) getenv('APP_URL'), $this->person(), self::PASSWORD);
    }

    protected static function demoFile(): string
    {
        static $path = null;
        if ($path === null) {
            $path = sys_get_temp_dir().'/Marlpit Baths '.getmypid().'.glb';
            MarlpitBaths::write($path, 'small');
            register_shutdown_function(static fn () => @unlink($path));
        }

        return $path;
    }

    /**
     * Signs a new person in, takes the demo in, and opens the workbench.
     *
     * @param bool        $drawn whether the canvas draws: a test that never looks at pixels need not wait for them
     * @param string|null $file  another model than the demo
     * @param bool        $tall  whether the window shows many rows
     */
    protected function workbench(bool $drawn = true, ?string $file = null, bool $tall = false): Browser
    {
        $person = $this->arrival();
        $browser = $this->browser(tall: $tall)->as($person)->visit($person->takeIn($file ?? self::demoFile()));
        $browser->waitFor('#ledger-grid');
        if (! $drawn) {
            $browser->waitUntil('return window.shelfBench !== undefined', 'the workbench does not open');
            // The rest is asked for once the first has been seen, as if it had been.
            $browser->js(
                'const { canvas } = shelfBench; canvas.frame = canvas.open = () => {}; const tell = setInterval(() => canvas.loading'.
                    ' ? canvas.report("shelf:drawn", { drawn: 0, boxes: 0, missing: 0, done: false, loading: true })'.
                    ' : clearInterval(tell), 40);',
            );

            return $browser->waitUntil('return !shelfBench.canvas.loading', 'the objects do not come');
        }

        return $browser->settled();
    }

    /** From here on the canvas draws no more: the rest of the test does not look at it. */
    protected static function stopDrawing(Browser $browser): void
    {
        $browser->js('shelfBench.canvas.frame = () => {}');
    }

    /** The canvas draws after all. */
    protected static function draw(Browser $browser): Browser
    {
        $browser->js('const { canvas } = shelfBench; delete canvas.frame; delete canvas.open; canvas.open(); canvas.frame()');

        return $browser->settled();
    }

    /** The number of the object with the name, as the server tells it. */
    protected static function number(Browser $browser, string $name): int
    {
        $number = $browser->driver->executeAsyncScript(
            'const done = arguments[arguments.length - 1]; fetch(shelfBench.server.base + "/ledger?lens=nesting&from=0&count=200&words=" '.
                '+ encodeURIComponent(arguments[0])).then((r) => r.text()).then((html) => {'.
                'const page = new DOMParser().parseFromString(html, "text/html"); done([...page.querySelectorAll(".row")].find((row) => '.
                'row.dataset.name === arguments[0])?.dataset.key.slice(1) ?? "0"); });',
            [$name],
        );

        self::assertNotSame('0', $number, "there is no object $name");

        return (int) (is_string($number) ? $number : 0);
    }

    /**
     * Frames an object by its name.
     *
     * @return array{int, int, int} its number, and a place on the canvas where a click hits it
     */
    protected function facing(Browser $browser, string $name): array
    {
        $number = self::number($browser, $name);
        $browser->js('shelfBench.canvas.framing.object(arguments[0])', $number);
        usleep(600_000);

        return [$number, ...$browser->settled()->placeOf($number)];
    }

    /** The pixel has the colour of the pick, or gets it in a moment. */
    protected function assertGrape(Browser $browser, int $x, int $y): void
    {
        $pixel = [0, 0, 0];
        for ($try = 0; $try < 40; $try++) {
            $pixel = $browser->pixel($x, $y);
            if ($pixel[0] > $pixel[1] + 25 && $pixel[2] > $pixel[1] + 20) {
                $this->addToAssertionCount(1);

                return;
            }
            usleep(100_000);
        }
        self::fail('not the colour of the pick: '.implode(', ', $pixel));
    }

    /** @param non-empty-list<array{int, int}> $points pixels of the canvas */
    protected function drag(Browser $browser, array $points, bool $release = true, string $held = ''): void
    {
        [$left, $top] = $browser->cornerOf('#canvas canvas');
        foreach ($points as $index => [$x, $y]) {
            $browser->mouse($index === 0 ? 'pressed' : 'moved', $left + $x, $top + $y, $held);
        }
        if ($release) {
            $this->release($browser, $points[count($points) - 1]);
        }
    }

    /** @param array{int, int} $point */
    protected function release(Browser $browser, array $point): void
    {
        [$left, $top] = $browser->cornerOf('#canvas canvas');
        $browser->mouse('released', $left + $point[0], $top + $point[1]);
    }

    /** Everything in the light theme; in the dark one the contrast, which is all that a theme changes. */
    protected static function assertNoFindings(Browser $browser, string $screen): void
    {
        if ($browser->js('return window.axe === undefined') === true) {
            $browser->js((string) file_get_contents(__DIR__.'/../../node_modules/axe-core/axe.min.js'));
        }
        // The colours are the same everywhere: every third screen is looked at in the dark as well.
        static $screens = 0;
        $themes = ['light' => []] + ($screens++ % 3 === 0 ? ['dark' => ['runOnly' => ['color-contrast']]] : []);
        foreach ($themes as $theme => $options) {
            $browser->dark($theme === 'dark');
            $findings = $browser->driver->executeAsyncScript(
                <<<'JS'
                    const done = arguments[arguments.length - 1];
                    const said = (node) => `${node.target.join(' ')} ${node.any[0]?.message ?? node.all[0]?.message ?? ''}`;
                    // Behind a dialog nothing can be reached.
                    const seen = document.querySelector('dialog[open]') ?? document;
                    // One row of a list is like another: the first dozen stand for all.
                    const rest = ['#rows .row:nth-child(n+13)', 'tbody tr:nth-child(n+9)'].filter((rows) => seen.querySelector(rows));
                    const where = { include: [seen], exclude: rest.map((rows) => [rows]) };
                    axe.run(where, { resultTypes: ['violations'], ...arguments[0] }).then(({ violations }) =>
                        done(violations.map((found) => `${found.id}: ${found.help}: ${found.nodes.slice(0, 4).map(said).join(' | ')}`)));
                JS
                ,
                [(object) $options],
            );
            self::assertSame([], $findings, "axe on $screen, $theme");
        }
        $browser->dark(false);
    }
}
