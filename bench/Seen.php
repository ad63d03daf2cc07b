<?php

declare(strict_types=1);

use Tests\Browser\Support\Browser;

/** Measures what somebody sees: opening a workbench, and drawing while the camera moves. */
final class Seen
{
    /** Milliseconds until something of the page is on the screen. */
    private static function seen(Browser $browser): float
    {
        return (float) $browser->js('return performance.getEntriesByName("first-contentful-paint")[0]?.startTime ?? 0');
    }

    /**
     * Opening a workbench in a browser that has nothing cached and no shader compiled, then again, and drawing while the camera moves.
     *
     * @return array{bare: float, cold: array{first: float, ready: float, whole: float},
     *     warm: array{first: float, ready: float, whole: float}, megabytes: float, frame: float, plain: float}
     */
    public static function canvas(string $size): array
    {
        [, $base] = Served::client($size);
        $fresh = static function (): Browser {
            $browser = Browser::open((string) getenv('APP_URL'));
            $browser->signIn('bench@marlpit.example', 'tidy-bench');
            $browser->tools->execute('Network.clearBrowserCache');
            $browser->tools->execute('Page.enable');

            return $browser;
        };
        // Before and after: the machine's speed changes from minute to minute.
        $bare = static function () use ($fresh, $base): float {
            $browser = $fresh();
            $browser->tools->execute('Network.enable');
            $browser->tools->execute('Network.setBlockedURLs', ['urls' => ['*/records*', '*/packs/*']]);
            $browser->tools->execute('Page.addScriptToEvaluateOnNewDocument', [
                'source' => 'HTMLCanvasElement.prototype.getContext = () => null',
            ]);
            $browser->visit('/projects')->visit($base);
            $browser->waitUntil('return performance.getEntriesByName("first-contentful-paint").length > 0', 'the page is not seen');
            $seen = self::seen($browser);
            $browser->quit();

            return $seen;
        };
        $before = $bare();
        $browser = $fresh();
        $browser->tools->execute('Page.addScriptToEvaluateOnNewDocument', [
            'source' => <<<'JS'
                addEventListener('shelf:drawn', ({ detail }) => {
                    const whole = detail.done && detail.missing === 0 && !detail.loading;
                    window.wholeAt = whole ? (window.wholeAt ?? performance.now()) : undefined;
                    if (window.firstDrawn !== undefined) return;
                    window.firstDrawn = 0;
                    requestAnimationFrame(() => {
                        window.firstDrawn = performance.now();
                        const fetched = [...performance.getEntriesByType('resource'), ...performance.getEntriesByType('navigation')];
                        window.firstBytes = fetched.reduce((sum, entry) => sum + (entry.encodedBodySize || 0), 0);
                    });
                }, true);
            JS
        ,
        ]);
        $opened = static function () use ($browser, $base): array {
            $browser->visit('/projects')->visit($base);
            $browser->waitUntil('return window.firstDrawn > 0', 'nothing is drawn', 60);
            $browser->waitUntil('return window.wholeAt !== undefined && performance.now() - window.wholeAt > 1500', 'it is not whole', 200);

            return [
                // Nothing is seen before the page is.
                'first' => max((float) $browser->js('return window.firstDrawn'), self::seen($browser)),
                'ready' => (float) $browser->js('return performance.getEntriesByType("navigation")[0].domContentLoadedEventEnd'),
                'whole' => (float) $browser->js('return window.wholeAt'),
            ];
        };
        $cold = $opened();
        $after = $bare();
        $warm = $opened();
        $megabytes = (float) $browser->js('return window.firstBytes') / 1e6;
        $browser->waitUntil('return !shelfBench.canvas.loading', 'the placements do not come', 120);
        $frame = (float) $browser->driver->executeAsyncScript(
            <<<'JS'
                const done = arguments[arguments.length - 1], { canvas } = window.shelfBench, frames = [];
                let angle = 0, last = performance.now();
                const eye = canvas.viewpoint.get().eye, [tx, ty] = canvas.viewpoint.get().target;
                const turn = () => {
                    const now = performance.now(); frames.push(now - last); last = now; angle += 0.02;
                    const [x, y] = [eye[0] - tx, eye[1] - ty];
                    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
                    canvas.viewpoint.camera.position.set(tx + x * cos - y * sin, ty + x * sin + y * cos, eye[2]);
                    canvas.viewpoint.controls.update();
                    if (frames.length < 45) return requestAnimationFrame(turn);
                    frames.splice(0, 10);
                    frames.sort((a, b) => a - b);
                    done(frames[Math.floor(frames.length / 2)]);
                };
                requestAnimationFrame(turn);
            JS
            ,
        );
        // The same library drawing every triangle: the same buffers and shaders, with no budget, in one picture.
        $browser->waitUntil('return shelfBench.canvas.packs.missing === 0', 'the packs do not come', 300);
        $plain = (float) $browser->driver->executeAsyncScript(
            <<<'JS'
                const done = arguments[arguments.length - 1], { canvas } = window.shelfBench, { painter } = canvas;
                canvas.frame = () => {};
                setTimeout(() => {
                    painter.budget = Infinity; painter.speed = 1e9;
                    painter.begin(canvas.viewpoint.camera, false);
                    const started = performance.now();
                    painter.drawSlice(Infinity); painter.drawSeeThrough(Infinity); painter.synchronize();
                    done(performance.now() - started);
                }, 500);
            JS
            ,
        );
        $browser->quit();

        return [
            'bare' => ($before + $after) / 2,
            'cold' => $cold,
            'warm' => $warm,
            'megabytes' => $megabytes,
            'frame' => $frame,
            'plain' => $plain,
        ];
    }
}
