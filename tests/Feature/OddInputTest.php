<?php

declare(strict_types=1);

namespace Tests\Feature;

use Illuminate\Routing\Route as RouteEntry;
use Illuminate\Support\Facades\Route;

/** Whatever is sent to a project's addresses, it is answered or refused in words, never by a broken page. */
final class OddInputTest extends ProjectTestCase
{
    /** Files whose fields any address may be given. */
    private const SHARED = ['Bench/Keys.php', 'Bench/Targets.php', 'Ledger/Ledger.php', 'Workbench/PickMode.php'];

    protected function setUp(): void
    {
        parent::setUp();
        config(['shelf.requests' => 100_000, 'shelf.back_for' => 1]);
        $this->send('POST', 'folders', ['holds' => 'tags', 'name' => 'Phases']);
        $this->send('POST', 'tags', ['name' => 'First', 'folder' => 1]);
        $this->send('POST', 'tag', ['tag' => 1, 'mode' => 'add', 'keys' => 'O500']);
        $this->send('POST', 'sets', ['name' => 'Seats', 'of' => 'rule', 'rule' => 'seat']);
        $this->send('POST', 'sets', ['name' => 'None', 'of' => 'nothing']);
    }

    /** Every address with each of its own fields, as the code reads them, one odd value after the other. */
    public function test_no_address_breaks_whatever_one_of_its_fields_says(): void
    {
        mt_srand(20);
        $this->send('POST', 'views', ['name' => 'Before', 'keep_rungs' => 1]);
        $this->send('POST', 'pick', ['keys' => 'O500,O501', 'mode' => 'replace']);
        $asked = 0;
        foreach ($this->addresses() as [$method, $path, $fields]) {
            foreach ($fields as $field) {
                // What many addresses share is asked often enough with one value at a sixth of them.
                $isShared = in_array($field, $this->shared(), true);
                foreach ($isShared && mt_rand(0, 5) > 0 ? [] : (array) array_rand(self::VALUES, 1) as $value) {
                    $asked++;
                    $this->assertAnswered($method, $path, [...self::PLAIN, $field => self::VALUES[$value]]);
                }
            }
        }
        self::assertGreaterThan(600, $asked);
        $this->assertNothingIsHarmed();
    }

    public function test_no_address_breaks_whatever_several_fields_say(): void
    {
        mt_srand(21);
        $this->send('POST', 'views', ['name' => 'Before', 'keep_rungs' => 1]);
        $addresses = $this->addresses();
        self::assertGreaterThan(55, count($addresses));
        for ($round = 0; $round < 150; $round++) {
            [$method, $path, $fields] = $addresses[array_rand($addresses)];
            $values = [];
            foreach ((array) array_rand($fields, min(count($fields), mt_rand(2, 6))) as $at) {
                $values[$fields[$at]] = self::VALUES[array_rand(self::VALUES)];
            }
            $this->assertAnswered($method, $path, $values);
        }
        $this->assertNothingIsHarmed();
    }

    /** @return list<array{string, string, non-empty-list<string>}> method, address with its numbers filled in at random, fields */
    private function addresses(): array
    {
        $shared = $this->shared();
        $addresses = [];
        foreach (Route::getRoutes() as $route) {
            \assert($route instanceof RouteEntry);
            if (! str_starts_with($route->uri(), 'projects/{project}/')) {
                continue;
            }
            $code = (string) file_get_contents((string) (new \ReflectionClass($route->getControllerClass() ?? ''))->getFileName());
            $path = preg_replace_callback(
                '~\{(\w+)\}~',
                fn (array $part): string => match ($part[1]) {
                    'project' => $this->project->key,
                    'row' => ['L2', 'T1', 'F1', 'E1', 'E2', 'V1', 'T999'][mt_rand(0, 6)],
                    default => ['1', '2', '500', '999999', '99999999999999999999', '0'][mt_rand(0, 5)],
                },
                $route->uri(),
            );
            $own = array_values(array_unique([...self::fields($code), ...$shared]));
            \assert($own !== []);
            $addresses[] = [$route->methods()[0], "/$path", $own];
        }

        return $addresses;
    }

    /** @return list<string> fields that addresses have in common */
    private function shared(): array
    {
        static $shared = null;

        return $shared ??= array_merge(
            ...array_map(static fn (string $file): array => self::fields((string) file_get_contents(app_path($file))), self::SHARED),
        );
    }

    /** @return list<string> names of the fields that the code asks a request for, or has checked */
    private static function fields(string $code): array
    {
        preg_match_all('~\$request->\w+\(\s*\'(\w+)\'|\'(\w+)\' => \[\'(?:required|nullable|sometimes)~', $code, $found);

        return array_values(array_filter([...$found[1], ...$found[2]]));
    }

    /** @param array<string, mixed> $values */
    private function assertAnswered(string $method, string $path, array $values): void
    {
        $answer = $this->call($method, $path, $values, server: mt_rand(0, 1) === 1 ? ['HTTP_HX_REQUEST' => 'true'] : []);
        $said = json_encode($values, JSON_INVALID_UTF8_SUBSTITUTE | JSON_PARTIAL_OUTPUT_ON_ERROR);
        // A file that is given out has no exception with it.
        $fault = property_exists($answer->baseResponse, 'exception') ? $answer->baseResponse->exception : null;
        $thrown = mb_strimwidth((string) $fault?->getMessage(), 0, 400);
        self::assertLessThan(500, $answer->getStatusCode(), "$method $path $said $thrown");
    }

    private function assertNothingIsHarmed(): void
    {
        $this->assertIndexTrue($this->project);
        $this->get("/projects/{$this->project->key}")->assertOk();
    }

    /** What a sensible request says, beside the field that is odd. */
    private const PLAIN = [
        'lens' => 'layers',
        'from' => 0,
        'count' => 10,
        'keys' => 'O500',
        'mode' => 'replace',
        'name' => 'North',
        'rung' => 2,
        'lock' => 1,
        'layer' => 2,
        'target' => '1',
        'way' => 'mesh',
        'words' => 'seat',
        'by' => 'layer',
        'what' => 'all',
        'on' => 'rows',
        'object' => 500,
        'eye' => '1,2,3',
        'part' => '0',
        'find' => 'a',
        'replace' => 'b',
        'entry' => 0,
        'tag' => 1,
        'row' => 'F1',
        'where' => 'into',
        'mark' => '',
        'holds' => 'tags',
        'of' => 'pick',
        'rule' => 'seat',
        'region' =>
            '{"shape":"circle","inside":false,"points":[[400,300]],"radius":90,"width":800,"height":600,'.
            '"eye":[30,-40,20],"target":[0,0,0],"up":[0,0,1],"fov":45}',
    ];

    private const LONG =
        'xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx'.
        'xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx'.
        'xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx';

    /** What nobody expects in a field. */
    private const VALUES = [
        '',
        ' ',
        '0',
        '1',
        '2',
        '-1',
        '1.5',
        '1e308',
        'NaN',
        '99999999999999999999',
        'O1',
        'L1',
        'L2,O5,K1,M2,S1',
        'O0',
        'Lx',
        '1-5',
        '9-2',
        'layers',
        'nesting',
        'objects',
        'kinds',
        'name',
        'height',
        'p:diameter',
        'p:none',
        'weigh',
        'seat',
        'kind:part width > 1',
        'kind:',
        '(((',
        '"',
        'not',
        'is picked',
        'replace',
        'add',
        'toggle',
        'mesh',
        'up',
        'properties',
        'only',
        'without',
        '{number}',
        '$9',
        '*',
        '[]',
        '{}',
        '[["height",80],["x"],5,null]',
        '{"shape":"rectangle"}',
        'null',
        'true',
        '../../etc/passwd',
        "line\nline\r",
        "\xff\xfe",
        "nul\0nul",
        'ẞ🏊‍♀️é',
        '<b>x</b>',
        self::LONG,
        ['a', 'b'],
        [1, 2, 3],
        ['k' => ['v' => 1]],
        [],
        '-999999999999',
        '0x1F',
        '1e999',
        "O5\u{2028}",
        'O1-O900',
        '{"shape":"lasso","points":[]}',
        '{"shape":"polygon","points":[[1,1],[1,1],[1,1]],"width":1,"height":1,"eye":[0,0,0],"target":[0,0,0],"up":[0,0,0],"fov":0}',
        '{"eye":[1],"target":"x","fov":null}',
        'data:image/png;base64,AAAA',
        '%',
        "'; --",
        null,
        [[['deep']]],
    ];
}
