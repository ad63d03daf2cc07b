<?php

declare(strict_types=1);

namespace Tests\Feature;

use Illuminate\Routing\Route as RouteEntry;
use Illuminate\Support\Facades\Route;
use PHPUnit\Framework\Attributes\TestWith;

/** Whatever is sent to a project's addresses, it is answered or refused in words, never by a broken page. */
final class OddInputTest extends ProjectTestCase
{
    private const NAMES = ['words', 'lens', 'from', 'count', 'sort', 'down', 'columns', 'keys', 'span', 'mode', 'region', 'way', 'tolerance', 'property', 'object', 'eye', 'at', 'q', 'by', 'starts', 'after',
        'depth', 'deep', 'all', 'unfold', 'fold', 'follow', 'rung', 'lock', 'on', 'layer', 'parent', 'name', 'pattern', 'find', 'replace', 'prefix', 'digits', 'start', 'step', 'target', 'rest', 'found', 'key',
        'revision', 'desk', 'part', 'what', 'number', 'entry', 'default', 'colour', 'newcomers', 'reviewed', 'with_held', 'from_pick', 'clear', 'pick', 'picture', 'camera', 'keep_rungs', 'keep_camera'];

    #[TestWith([1])]
    #[TestWith([2])]
    #[TestWith([3])]
    public function test_no_address_breaks(int $seed): void
    {
        mt_srand($seed);
        $this->send('POST', 'views', ['name' => 'Before', 'keep_rungs' => 1]);
        $this->send('POST', 'pick', ['keys' => 'O500,O501', 'mode' => 'replace']);
        $routes = array_values(array_filter(iterator_to_array(Route::getRoutes()), static fn (RouteEntry $route): bool => str_starts_with($route->uri(), 'projects/{project}/')));
        self::assertGreaterThan(40, count($routes));
        for ($round = 0; $round < 160; $round++) {
            $route = $routes[mt_rand(0, count($routes) - 1)];
            $method = $route->methods()[0];
            $path = preg_replace_callback('~\{(\w+)\}~', fn (array $part): string => match ($part[1]) {
                'project' => $this->project->key,
                default => ['1', '2', '500', '999999', '99999999999999999999', '0'][mt_rand(0, 5)],
            }, $route->uri());
            $values = [];
            foreach (range(1, mt_rand(1, 7)) as $_) {
                $values[self::NAMES[array_rand(self::NAMES)]] = self::odd();
            }
            $answer = $this->call($method, "/$path", $values, server: mt_rand(0, 1) === 1 ? ['HTTP_HX_REQUEST' => 'true'] : []);
            self::assertLessThan(500, $answer->getStatusCode(), "$method $path ".json_encode($values, JSON_INVALID_UTF8_SUBSTITUTE | JSON_PARTIAL_OUTPUT_ON_ERROR).' '.mb_strimwidth((string) $answer->exception?->getMessage(), 0, 400));
        }
        // Nothing that was sent has harmed what is kept.
        $this->assertIndexTrue($this->project);
        $this->get("/projects/{$this->project->key}")->assertOk();
    }

    private static function odd(): mixed
    {
        $some = ['', ' ', '0', '1', '2', '-1', '1.5', '1e308', 'NaN', '99999999999999999999', 'O1', 'L1', 'L2,O5,K1,M2,S1', 'O0', 'Lx', '1-5', '9-2', 'layers', 'nesting', 'objects', 'kinds', 'name', 'height', 'p:diameter', 'p:none', 'weigh',
            'seat', 'kind:part width > 1', 'kind:', '(((', '"', 'not', 'is picked', 'replace', 'add', 'toggle', 'mesh', 'up', 'properties', 'only', 'without', '{number}', '$9', '*', '[]', '{}', '[["height",80],["x"],5,null]', '{"shape":"rectangle"}',
            'null', 'true', '../../etc/passwd', "line\nline\r", "\xff\xfe", "nul\0nul", 'ẞ🏊‍♀️é', '<b>x</b>', str_repeat('x', 5000), ['a', 'b'], [1, 2, 3], ['k' => ['v' => 1]], []];

        return $some[array_rand($some)];
    }
}
