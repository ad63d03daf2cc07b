<?php

declare(strict_types=1);

namespace Tests\Browser\Support;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Exception\ElementNotInteractableException;
use Facebook\WebDriver\Exception\StaleElementReferenceException;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;

/**
 * A headless Chromium that a test drives as a person would: 1280 by 800 pixels, unless told otherwise, with WebGL on the processor. One
 * that a test is done with forgets everything and serves the next: its shaders stay compiled, which takes longer than most tests.
 */
final class Browser
{
    /** @var list<self> */
    private static array $idle = [];

    /** @var resource|null */
    private static $process = null;

    private static int $port = 0;

    public readonly RemoteWebDriver $driver;

    public readonly ChromeDevToolsDriver $tools;

    private int $width = 1280;

    /** Whether a button of the mouse is held down. */
    private bool $isDown = false;

    public static function open(string $base, bool $dark = false, int $height = 800): self
    {
        $browser = array_pop(self::$idle) ?? new self($base);
        $browser->size(1280, $height);
        $browser->dark($dark);

        return $browser;
    }

    /** Signs out, forgets what the pages had stored, and waits for the next test. */
    public function release(): void
    {
        // An answer that is still on its way would bring its cookie back.
        $this->driver->get('about:blank');
        $this->tools->execute('Network.clearBrowserCookies');
        $this->tools->execute('Storage.clearDataForOrigin', ['origin' => $this->base, 'storageTypes' => 'all']);
        $this->complaints();
        self::$idle[] = $this;
    }

    private function __construct(private readonly string $base)
    {
        self::startDriver();
        $options = (new ChromeOptions)->addArguments([
            '--headless=new',
            '--no-sandbox',
            '--disable-quic',
            '--no-first-run',
            '--disable-background-networking',
            '--disable-component-update',
            '--disable-sync',
            '--use-angle=swiftshader',
            '--enable-unsafe-swiftshader',
            '--force-color-profile=srgb',
            // One process draws everything here: what the processor draws of the page beside it is not in its way.
            '--disable-gpu-rasterization',
            '--disable-gpu-compositing',
            '--hide-scrollbars=false',
            '--user-data-dir='.sys_get_temp_dir().'/shelf-browser-'.bin2hex(random_bytes(6)),
        ]);
        $capabilities = DesiredCapabilities::chrome()
            ->setCapability(ChromeOptions::CAPABILITY, $options)
            ->setCapability('goog:loggingPrefs', ['browser' => 'ALL']);
        $this->driver = RemoteWebDriver::create('http://127.0.0.1:'.self::$port, $capabilities, 30_000, 180_000);
        $this->tools = new ChromeDevToolsDriver($this->driver);
    }

    public function size(int $width, int $height): void
    {
        $this->width = $width;
        $this->tools->execute('Emulation.setDeviceMetricsOverride', [
            'width' => $width,
            'height' => $height,
            'deviceScaleFactor' => 1,
            'mobile' => $width < 600,
        ]);
        // A page that is wider than a telephone is shown whole there, at a size of its own.
        if ($width >= 600) {
            $this->waitUntil(
                <<<JS
                // The canvas follows once it has been opened, unless the window leaves it no room.
                const { surface, element, painter } = window.shelfBench?.canvas ?? {};
                const isDrawn = (pixels, of) => pixels === Math.round(of * painter.resolution);
                const shown = document.documentElement.clientWidth;
                return shown <= $width && shown > $width - 20 && (!painter?.frames.renderer ||
                    element.clientWidth * element.clientHeight === 0 ||
                    (isDrawn(surface.width, element.clientWidth) && isDrawn(surface.height, element.clientHeight)));
                JS
                ,
                'the page does not take its size',
            );
        }
    }

    public function dark(bool $dark): void
    {
        $this->tools->execute('Emulation.setEmulatedMedia', [
            'features' => [['name' => 'prefers-color-scheme', 'value' => $dark ? 'dark' : 'light']],
        ]);
    }

    public function visit(string $path): self
    {
        $this->driver->get($this->base.$path);

        return $this;
    }

    public function signIn(string $email, string $password): self
    {
        $this->visit('/sign-in');
        $this->type('#email', $email);
        $this->type('#password', $password);
        $this->click('.sign-in .primary');
        $this->waitFor('.projects');

        return $this;
    }

    /** Goes on as somebody who has signed in without a browser. */
    public function as(Arrival $person): self
    {
        foreach ($person->cookies->toArray() as $cookie) {
            $this->tools->execute('Network.setCookie', [
                'name' => $cookie['Name'],
                'value' => $cookie['Value'],
                'url' => $this->base,
                'httpOnly' => (bool) ($cookie['HttpOnly'] ?? false),
            ]);
        }

        return $this;
    }

    public function find(string $selector): RemoteWebElement
    {
        $this->waitFor($selector);
        $element = $this->driver->findElement(WebDriverBy::cssSelector($selector));
        \assert($element instanceof RemoteWebElement);

        return $element;
    }

    public function has(string $selector): bool
    {
        return $this->driver->findElements(WebDriverBy::cssSelector($selector)) !== [];
    }

    public function text(string $selector): string
    {
        $text = $this->js('return document.querySelector(arguments[0])?.textContent ?? ""', $selector);

        return trim((string) preg_replace('~\s+~', ' ', is_string($text) ? $text : ''));
    }

    public function click(string $selector): self
    {
        for ($try = 1; ; $try++) {
            try {
                $this->find($selector)->click();

                return $this;
            } catch (StaleElementReferenceException $error) {
                // What comes from the server may replace it between finding and clicking.
                if ($try > 3) {
                    throw $error;
                }
            }
        }
    }

    public function type(string $selector, string $text): self
    {
        $this->js('document.querySelector(arguments[0]).value = ""', $selector);
        $this->find($selector)->sendKeys($text);

        return $this;
    }

    /** Keys for whatever has the focus; names like "Enter" or "Control+z". */
    public function press(string ...$keys): self
    {
        foreach ($keys as $key) {
            $parts = explode('+', $key);
            $last = (string) array_pop($parts);
            $held = array_map(
                static fn (string $name): string => (string) constant(WebDriverKeys::class.'::'.strtoupper($name)),
                $parts,
            );
            $name = WebDriverKeys::class.'::'.strtoupper((string) preg_replace('~(?<=[a-z])(?=[A-Z])~', '_', $last));
            $sent = strlen($last) > 1 && defined($name) ? (string) constant($name) : $last;
            for ($try = 0; ; $try++) {
                try {
                    $actions = $this->driver->action();
                    foreach ($held as $modifier) {
                        $actions->keyDown(null, $modifier);
                    }
                    $actions->sendKeys(null, $sent);
                    foreach ($held as $modifier) {
                        $actions->keyUp(null, $modifier);
                    }
                    $actions->perform();
                    break;
                } catch (StaleElementReferenceException | ElementNotInteractableException $error) {
                    // The focused element was replaced while the key was on its way.
                    if ($try > 3) {
                        throw $error;
                    }
                    usleep(100_000);
                }
            }
        }

        return $this;
    }

    public function js(string $script, mixed ...$arguments): mixed
    {
        return $this->driver->executeScript($script, array_values($arguments));
    }

    public function waitFor(string $selector, float $seconds = 40): self
    {
        return $this->waitUntil(
            'return document.querySelector('.json_encode($selector).') !== null',
            "there is no $selector",
            $seconds,
        );
    }

    /** Waits for words; for those of an answer, until the canvas has heard of it too: what it says is unpacked beside the page. */
    public function waitForText(string $selector, string $text, float $seconds = 40): self
    {
        $this->waitUntil(
            'return (document.querySelector('.json_encode($selector).')?.textContent ?? "").includes('.json_encode($text).')',
            "$selector does not say \"$text\"",
            $seconds,
        );

        return $selector === '#message' ? $this->heard($seconds) : $this;
    }

    /** Waits until the canvas has heard of every answer. */
    public function heard(float $seconds = 40): self
    {
        return $this->waitUntil(
            'return !window.shelfBench || (shelfBench.unread === 0 && !document.body.classList.contains("asking"))',
            'something is still asked',
            $seconds,
        );
    }

    public function waitUntil(string $script, string $complaint, float $seconds = 40): self
    {
        $until = microtime(true) + $seconds;
        do {
            if ($this->js($script) === true) {
                return $this;
            }
            usleep(30_000);
        } while (microtime(true) < $until);
        throw new \RuntimeException("After $seconds seconds $complaint. The page says: ".mb_strimwidth($this->text('body'), 0, 600));
    }

    /** Waits until the canvas has drawn all that it is going to draw, edges smoothed. */
    public function settled(float $seconds = 120): self
    {
        return $this->waitUntil(
            'const c = window.shelfBench?.canvas; return !!c && !c.loading && !c.untextured && !c.stale && c.painter.pass === null && '.
                'c.painter.summary.done && c.packs.missing === 0 && (c.arrivals ?? 0) === 0 && '.
                '!document.body.classList.contains("asking") && shelfBench.unread === 0',
            'the canvas is not finished',
            $seconds,
        );
    }

    /** @return array{int, int, int} red, green, blue of a place on the canvas, in pixels of the page; 0 to 255 */
    public function pixel(int $x, int $y): array
    {
        $pixel = $this->js(
            <<<'JS'
                const surface = document.querySelector('#canvas canvas');
                const board = document.createElement('canvas');
                board.width = surface.clientWidth; board.height = surface.clientHeight;
                const pen = board.getContext('2d');
                pen.imageSmoothingEnabled = false;
                pen.drawImage(surface, 0, 0, board.width, board.height);
                return [...pen.getImageData(arguments[0], arguments[1], 1, 1).data].slice(0, 3);
            JS
            ,
            $x,
            $y,
        );
        \assert(is_array($pixel));

        return [(int) $pixel[0], (int) $pixel[1], (int) $pixel[2]];
    }

    /** A place on the canvas where a click hits the object. @return array{int, int} */
    public function placeOf(int $number): array
    {
        $place = $this->js(
            <<<'JS'
                const { painter } = window.shelfBench.canvas;
                const { left, top, width, height } = painter.renderer.domElement.getBoundingClientRect();
                for (let step = 64; step >= 3; step = Math.floor(step / 2))
                    for (let y = 8; y < height - 8; y += step)
                        for (let x = 8; x < width - 8; x += step) {
                            const uppermost = document.elementFromPoint(x + left, y + top);
                            if (uppermost === painter.renderer.domElement && painter.numberAt(x, y) === arguments[0]) return [x, y];
                        }
                return null;
            JS
            ,
            $number,
        );
        if (! is_array($place)) {
            throw new \RuntimeException("Object $number is nowhere on the canvas.");
        }

        return [(int) $place[0], (int) $place[1]];
    }

    /** @param string $held "" or the name of a key that is held */
    public function clickCanvas(int $x, int $y, string $held = '', string $button = 'left', int $count = 1): self
    {
        [$left, $top] = $this->cornerOf('#canvas canvas');

        return $this->mouse('moved', $left + $x, $top + $y, $held)->clickAt($left + $x, $top + $y, $held, $button, $count);
    }

    /** Clicks at a place of the page, whatever lies there. */
    public function clickAt(float $x, float $y, string $held = '', string $button = 'left', int $count = 1): self
    {
        return $this->mouse('pressed', $x, $y, $held, $button, $count)->mouse('released', $x, $y, $held, $button, $count);
    }

    /** Clicks in the middle of an element with a key held down. */
    public function clickWith(string $selector, string $held): self
    {
        [$x, $y] = $this->middleOf($selector);

        return $this->mouse('moved', $x, $y, $held)->clickAt($x, $y, $held);
    }

    /** Presses the mouse on one element, and lets it go on another. */
    public function drag(string $from, string $to, string $held = ''): self
    {
        [$x, $y] = $this->middleOf($from);
        [$there, $below] = $this->middleOf($to);

        return $this->mouse('moved', $x, $y, $held)
            ->mouse('pressed', $x, $y, $held)
            ->mouse('moved', ($x + $there) / 2, ($y + $below) / 2, $held)
            ->mouse('moved', $there, $below, $held)
            ->mouse('released', $there, $below, $held);
    }

    /** @return array{float, float} */
    public function middleOf(string $selector): array
    {
        $place = $this->js(
            'const { left, top, width, height } = document.querySelector(arguments[0]).getBoundingClientRect();'.
                'return [left + width / 2, top + height / 2]',
            $selector,
        );
        \assert(is_array($place));

        return [(float) $place[0], (float) $place[1]];
    }

    /** The mouse itself, at a place of the page. @param string $what "moved", "pressed" or "released" */
    public function mouse(string $what, float $x, float $y, string $held = '', string $button = 'left', int $count = 1): self
    {
        $this->isDown = $what === 'pressed' || ($what === 'moved' && $this->isDown);
        $this->tools->execute('Input.dispatchMouseEvent', [
            'type' => 'mouse'.ucfirst($what),
            'x' => $x,
            'y' => $y,
            'modifiers' => ['' => 0, 'Alt' => 1, 'Control' => 2, 'Shift' => 8][$held],
            'button' => $this->isDown || $what === 'released' ? $button : 'none',
            'buttons' => $this->isDown ? ['left' => 1, 'right' => 2][$button] : 0,
            'clickCount' => $what === 'moved' ? 0 : $count,
        ]);

        return $this;
    }

    /** @return array{float, float} left and top of an element, in pixels of the page */
    public function cornerOf(string $selector): array
    {
        $corner = $this->js('const b = document.querySelector(arguments[0]).getBoundingClientRect(); return [b.left, b.top]', $selector);
        \assert(is_array($corner));

        return [(float) $corner[0], (float) $corner[1]];
    }

    public function screenshot(string $path): self
    {
        $shot = $this->tools->execute('Page.captureScreenshot', ['format' => 'png']);
        file_put_contents($path, base64_decode((string) $shot['data'], true));

        return $this;
    }

    /** @return list<string> what the page complained about in its console */
    public function complaints(): array
    {
        $lines = [];
        foreach ($this->driver->manage()->getLog('browser') as $entry) {
            if (
                in_array($entry['level'], ['SEVERE', 'WARNING'], true) &&
                preg_match('~GPU stall|status of 422~', (string) $entry['message']) !== 1
            ) {
                $lines[] = (string) $entry['message'];
            }
        }

        return $lines;
    }

    public function quit(): void
    {
        $this->driver->quit();
    }

    private static function quitIdle(): void
    {
        foreach (self::$idle as $browser) {
            $browser->quit();
        }
    }

    private static function startDriver(): void
    {
        if (self::$process !== null) {
            return;
        }
        $server = stream_socket_server('tcp://127.0.0.1:0');
        $name = $server === false ? '' : (string) stream_socket_get_name($server, false);
        self::$port = (int) substr($name, (int) strrpos($name, ':') + 1);
        fclose($server ?: throw new \RuntimeException('There is no free port for the browser.'));
        $process = proc_open(
            ['chromedriver', '--port='.self::$port, '--log-level=OFF'],
            [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
        );
        self::$process = $process === false ? throw new \RuntimeException('chromedriver does not start.') : $process;
        register_shutdown_function(static function (): void {
            self::quitIdle();
            if (self::$process !== null) {
                proc_terminate(self::$process);
            }
        });
        for ($try = 0; $try < 100; $try++) {
            $connection = @fsockopen('127.0.0.1', self::$port);
            if ($connection !== false) {
                fclose($connection);

                return;
            }
            usleep(50_000);
        }
        throw new \RuntimeException('chromedriver does not answer.');
    }
}
