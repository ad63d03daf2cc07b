<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

/** What code calls of PHP's extensions is required, so that it is there on a machine that has nothing else. */
final class ExtensionsTest extends TestCase
{
    /** Extensions that every PHP has. */
    private const ALWAYS = ['core', 'date', 'hash', 'json', 'pcre', 'random', 'reflection', 'spl', 'standard', 'libxml', 'zend opcache'];

    /** Those that others bring along. */
    private const BROUGHT = ['pdo' => 'pdo_pgsql'];

    /** Folders of code, by what they may call. */
    private const FOLDERS = [
        'require' => ['app', 'bootstrap', 'config', 'core', 'database', 'demo', 'routes'],
        'require-dev' => ['bench', 'tests'],
    ];

    #[TestWith(['require'])]
    #[TestWith(['require-dev'])]
    public function test_every_extension_that_is_called_is_required(string $kind): void
    {
        $root = dirname(__DIR__, 2);
        /** @var array<string, array<string, string>> $composer */
        $composer = json_decode((string) file_get_contents("$root/composer.json"), true);
        $names = array_keys($composer['require'] + ($kind === 'require' ? [] : $composer[$kind]));
        $required = array_map(static fn (string $name): string => substr($name, 4), preg_grep('~^ext-~', $names) ?: []);
        $missing = [];
        foreach (self::files($root, self::FOLDERS[$kind]) as $file) {
            foreach (self::called((string) file_get_contents($file)) as $name) {
                $extension = self::extensionOf($name);
                $extension = self::BROUGHT[$extension] ?? $extension;
                if (! in_array($extension, [...self::ALWAYS, ...$required], true)) {
                    $missing[] = substr($file, strlen($root) + 1).": $name of ".($extension === '' ? 'nothing that is here' : $extension);
                }
            }
        }
        self::assertSame([], array_values(array_unique($missing)));
    }

    public function test_it_sees_functions_classes_and_methods_for_what_they_are(): void
    {
        $code = '<?php namespace A; use B\strlen2; class X { function imagepng() { $this->gzopen(1); Y::curl_init(); new \ZipArchive; } }
            imagecreatetruecolor(1, 1); \apcu_fetch("a"); function ours() {} ours(); // bzopen()';

        self::assertSame(['ZipArchive', 'apcu_fetch', 'imagecreatetruecolor'], self::called($code));
        self::assertSame(['zip', 'apcu', 'gd', ''], array_map(self::extensionOf(...), ['ZipArchive', 'apcu_fetch', 'imagepng', 'no_such']));
    }

    /**
     * @param list<string> $folders
     *
     * @return iterable<string>
     */
    private static function files(string $root, array $folders): iterable
    {
        foreach ($folders as $folder) {
            $all = new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator("$root/$folder", \FilesystemIterator::SKIP_DOTS));
            foreach ($all as $file) {
                if ($file instanceof \SplFileInfo && $file->getExtension() === 'php' && ! str_contains($file->getPathname(), '/cache/')) {
                    yield $file->getPathname();
                }
            }
        }
    }

    /** @return list<string> functions that are called and classes of PHP's own that are named, sorted */
    private static function called(string $code): array
    {
        $tokens = array_values(
            array_filter(\PhpToken::tokenize($code), static fn (\PhpToken $token): bool => ! $token->isIgnorable()),
        );
        $found = $own = [];
        foreach ($tokens as $at => $token) {
            $before = $tokens[$at - 1] ?? null;
            $isCall = ($tokens[$at + 1] ?? null)?->text === '(';
            if ($before?->is(T_FUNCTION) === true) {
                $own[strtolower($token->text)] = true;
            } elseif ($token->is(T_NAME_FULLY_QUALIFIED) && substr_count($token->text, '\\') === 1) {
                $name = substr($token->text, 1);
                $isClass = class_exists($name) || interface_exists($name);
                ($isCall && $before?->is(T_NEW) !== true) || $isClass ? ($found[$name] = true) : null;
            } elseif ($token->is(T_STRING) && $isCall) {
                $isMethod = $before?->is([T_OBJECT_OPERATOR, T_NULLSAFE_OBJECT_OPERATOR, T_DOUBLE_COLON, T_NEW, T_ATTRIBUTE]) === true;
                $isMethod ? null : ($found[$token->text] = true);
            }
        }
        $isTheirs = static fn (string $name): bool => ! isset($own[strtolower($name)]) && ! function_exists($name);
        $names = array_values(
            array_filter(
                array_keys($found),
                static fn (string $name): bool => $isTheirs($name) || self::extensionOf($name) !== '',
            ),
        );
        sort($names);

        return $names;
    }

    /** In lower case; "" where nothing that is here has it. */
    private static function extensionOf(string $name): string
    {
        return strtolower((string) match (true) {
            function_exists($name) => (new \ReflectionFunction($name))->getExtensionName(),
            class_exists($name), interface_exists($name) => (new \ReflectionClass($name))->getExtensionName(),
            default => '',
        });
    }
}
